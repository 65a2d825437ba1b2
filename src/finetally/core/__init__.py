"""The computation, pure: values in, values out. No framework, no files, no clock, no network.

One line runs through it: text or form → Session → tape → figures → (comparison | week).
"""

CORE_VERSION = 7
"""Part of the key of every stored figure; raised whenever a figure may come out differently."""
