"""One blueprint a resource: each function reads or edits the show, and says so in words."""
