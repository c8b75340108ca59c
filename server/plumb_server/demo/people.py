"""The invented people of the demo, and the password they all sign in with."""

PASSWORD = "plumb-demo-2026"
LEAD = "ilse.varga@hesper-review.example"
REVIEWER = "jonas.reed@hesper-review.example"
SUBMITTER = "mira.oduya@calder-finch.example"
READER = "clerk@port-maren.example"
OFFICE = "nora.quist@hesper-review.example"
STRANGER = "avel.tran@northlight.example"

OF_OFFICE = (LEAD, REVIEWER, OFFICE)
"""Who belongs to the office."""

PEOPLE = {
    LEAD: ("Ilse Varga", "Hesper Review Office"),
    REVIEWER: ("Jonas Reed", "Hesper Review Office"),
    SUBMITTER: ("Mira Oduya", "Calder Finch Structures"),
    READER: ("Tomas Bell", "Port Maren Building Office"),
    OFFICE: ("Nora Quist", "Hesper Review Office"),
    STRANGER: ("Avel Tran", "Northlight Partners"),
}
