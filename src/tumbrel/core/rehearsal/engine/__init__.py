"""The trip played through from event to event."""
