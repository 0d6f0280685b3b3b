"""The Django site: settings, addresses, who may come in, and how errors are told."""
