"""What is asked: the steps of a job in working order, composed of families, hubs and stages."""
