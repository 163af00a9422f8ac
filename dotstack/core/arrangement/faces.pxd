# Nothing but its loops is compiled.
