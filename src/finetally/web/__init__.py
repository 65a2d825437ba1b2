"""The web side: stores documents, decides who may, asks the core, serves the front end."""
