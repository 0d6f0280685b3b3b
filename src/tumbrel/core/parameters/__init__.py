"""Every default of the models, with its source and range, apart from the models."""

from .defaults import DEFAULTS, Defaults, Parameter

__all__ = ["DEFAULTS", "Defaults", "Parameter"]
