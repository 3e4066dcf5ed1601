"""Nuntius: records of work meetings, and minutes that lead to the words behind them."""

__version__ = "0.1.0"
