"""What goes out and comes in: the plan file, tables as CSV, drawings as SVG."""
