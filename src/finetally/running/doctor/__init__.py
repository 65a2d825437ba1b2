"""`fine-tally doctor`: looks at everything an installation stands on, and says what to do. It changes nothing."""
