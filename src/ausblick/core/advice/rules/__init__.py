"""The rules, one module for each subject that is judged."""
