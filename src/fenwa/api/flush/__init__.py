"""What comes out, and how a pot's salt is brought down."""
