"""What an effect does, in words and pictures: sentence, notices, scope, weave, bake."""
