"""From what somebody knows to what a kind wants to be told: root-finding on measures."""
