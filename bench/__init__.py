"""How fast is it, and how much memory does it take, beside other programs in the same run?"""
