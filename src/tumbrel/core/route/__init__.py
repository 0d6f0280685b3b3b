"""From a recorded or drawn track to legs and stops: cleaned, smoothed, cut, timed."""
