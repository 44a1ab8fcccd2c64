"""Questions as people ask them: read out of their words."""
