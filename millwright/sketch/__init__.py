"""Drawings of what to look for, beside the step they explain; worked out here, inked by the sheet and by paper."""
