"""Practice without scrap: a simulated lathe, exercises at it, and what came of them."""
