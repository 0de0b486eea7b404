"""Tools that are not the product: measurements, pictures, a browser to drive."""
