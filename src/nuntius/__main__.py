"""`python -m nuntius`."""

from nuntius.cli import main

main()
