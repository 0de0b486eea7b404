"""What comes with every show: plain kinds of fixtures, and small rigs to begin with."""
