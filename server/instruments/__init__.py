"""What is read with: brackets with the sag they hang by."""
