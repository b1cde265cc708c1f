"""Choice: what is known of every blade, gathered for a use."""
