"""What a mark is and what is true of it: values in, values out.

Nothing in here knows the web, a database, a file or the clock.
"""
