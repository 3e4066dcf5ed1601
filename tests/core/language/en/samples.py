"""What several tests of this folder share."""

from datetime import date

TUESDAY = date(2026, 9, 15)
