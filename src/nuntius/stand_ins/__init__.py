"""Small simulations of outside services. They speak the real open protocol and say that they are simulated."""
