"""What is wanted: the garden, its beds, structures and plantings, typed; older documents brought up to
date.
"""
