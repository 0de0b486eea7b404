"""What is heard on the network: nodes and other sources. A process of its own, so that nothing that comes in disturbs light."""
