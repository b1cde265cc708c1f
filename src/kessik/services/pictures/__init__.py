"""Pictures: kept, shown, and gone when nothing shows them."""
