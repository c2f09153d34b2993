"""From a frame back to its cause: which lamp, which colour, where the camera stood; planned beside measured."""
