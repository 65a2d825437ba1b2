"""From a line to tokens and facts: numbers, units, words, and the rules that read them."""
