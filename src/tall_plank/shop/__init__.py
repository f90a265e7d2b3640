"""What the shop needs: cut list, hardware schedule, edging, cutting plans."""
