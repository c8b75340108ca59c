"""The resolver: rules, and evaluations of a rule set under assumptions."""

from plumb_core.rules.evaluation import Evaluation, Step
from plumb_core.rules.facts import Fact, resolved
from plumb_core.rules.rule import Parameter, Rule, cited, renamed, rule, rule_set, without, written
from plumb_core.rules.values import Array, Candidate, Governed, Key, bounded

__all__ = [
    "Array",
    "Candidate",
    "Evaluation",
    "Fact",
    "Governed",
    "Key",
    "Parameter",
    "Rule",
    "Step",
    "bounded",
    "cited",
    "renamed",
    "resolved",
    "rule",
    "rule_set",
    "without",
    "written",
]
