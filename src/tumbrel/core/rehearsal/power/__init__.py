"""Sources, banks and chargers, and what hangs on them."""
