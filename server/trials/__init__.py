"""The whole tried from outside: in a browser, through a proxy, with a crowd, with random requests, killed
while it writes.
"""
