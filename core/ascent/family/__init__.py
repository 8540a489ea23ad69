"""What a kind of support is to the rest of the house: its protocol, its options that describe themselves, its
wishes.
"""
