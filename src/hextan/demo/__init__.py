"""The invented production Low Water and its invented equipment."""
