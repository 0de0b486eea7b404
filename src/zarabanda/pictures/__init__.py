"""Pictures, films and letters for pixel maps: taken in, decoded, and given to layers as small rasters."""
