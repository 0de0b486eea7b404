"""The demo show "Salt Light": made up from the first fixture to the last, built through the show's own functions."""
