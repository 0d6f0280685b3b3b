"""The trip laid out: times, air, sun, and what each camera is asked."""
