"""What is kept: tables, history with undo, and the compiling of a show into what the engine works on."""
