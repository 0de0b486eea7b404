"""What an effect is made of: lanes, phase, waveforms, stops, paths; and laying it on heads."""
