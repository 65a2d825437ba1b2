"""Running an installation: starting it, keeping it safe, putting it back. Outside of the core and of the web."""
