"""`python -m zarabanda`."""

from zarabanda.cli import main

if __name__ == "__main__":
    main()
