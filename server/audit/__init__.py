"""Whether what is stored is what was entered: chains and journals walked, and the seals they are held against."""
