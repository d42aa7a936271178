<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/**
 * All causes in the order in which they are tried: what differs in form, alone or together; then the value, cell by cell, and
 * the causes that only a whole column can show.
 *
 * A new cause is a case of CauseId, a class in Forms, Rules or PatternRules, and a line here.
 */
final readonly class CauseCatalogue
{
    /** Exports carry it: when a cause is added or told apart from another, it rises. */
    public const VERSION = 3;

    public FormCombination $forms;

    /** @var array<string, PatternRule> by cause id, in their order */
    public array $patternRules;

    /** @var list<CauseRule> tried before the causes of a whole column */
    private array $before;

    /** @var list<CauseRule|PatternRule> tried together with them, in this order */
    private array $ofColumn;

    /** @var list<CauseRule> tried after them */
    private array $after;

    public function __construct()
    {
        $this->forms = new FormCombination(
            [
                new Forms\Spacing,
                new Forms\Invisible,
                new Forms\LineEndForm,
                new Forms\LetterCase,
                new Forms\UnicodeForm,
                new Forms\Accents,
                new Forms\Punctuation,
                new Forms\LeadingZeros,
            ],
            [new Forms\NumberForm, new Forms\DateWriting, new Forms\YesNoForm, new Forms\BlankToken],
            [
                CauseId::Invisible,
                CauseId::LineEnds,
                CauseId::Unicode,
                CauseId::Accents,
                CauseId::Punctuation,
                CauseId::Spacing,
                CauseId::LetterCase,
                CauseId::LeadingZeros,
            ],
        );
        $this->before = [new Rules\Rounding, new Rules\Sign, new Rules\Scale];
        $this->ofColumn = [
            new PatternRules\Truncated,
            new Rules\DayMonth,
            new PatternRules\Offset,
            new PatternRules\DateShift,
            new PatternRules\Translated,
            new PatternRules\Moved,
        ];
        $patternRules = [];
        foreach ($this->ofColumn as $rule) {
            if ($rule instanceof PatternRule) {
                $patternRules[$rule->id()->value] = $rule;
            }
        }
        $this->patternRules = $patternRules;
        $this->after = [new Rules\WrongEncoding, new Rules\NearText];
    }

    /** The first cause of value that one pair of cells shows before those of a whole column are looked at. */
    public function valueBefore(NormalisedPair $pair): ?Cause
    {
        return $this->first($this->before, $pair);
    }

    /** What is left when the whole column shows nothing. Nothing is guessed. */
    public function valueAfter(NormalisedPair $pair): Cause
    {
        return $this->first($this->after, $pair) ?? Cause::of(CauseId::None);
    }

    /**
     * Which letters of two texts became which, where they are near each other: the breakdown of a pattern, and what a record says.
     *
     * @return list<array{string, string}> as they were delivered: what was, and what became of it
     */
    public function letters(string $source, string $target): array
    {
        $pair = NormalisedPair::of(new CellPair($source, $target), $this->forms);

        return (new Rules\NearText)->letters($pair->pair, $pair->bare);
    }

    /** @return array<string, list<string>> by cause id: what the pair is evidence for */
    public function evidence(NormalisedPair $pair): array
    {
        $evidence = [];
        foreach ($this->patternRules as $id => $rule) {
            $found = $rule->evidence($pair->pair);
            $found = $found !== [] || $pair->forms === [] ? $found : $rule->evidence($pair->bare);
            if ($found !== []) {
                $evidence[$id] = $found;
            }
        }

        return $evidence;
    }

    /** The first cause that the decisions of its column, or the cell itself, give to a pair that was left undecided. */
    public function decided(NormalisedPair $pair, ColumnDecision $decision, string $moved): ?Cause
    {
        foreach ($this->ofColumn as $rule) {
            $cause = match (true) {
                $rule instanceof CauseRule => $pair->explainedBy($rule),
                ! $decision->holds($rule->id()) => null,
                $rule->id() === CauseId::Moved => $decision->cause(CauseId::Moved, $moved === '' ? [] : [$moved]),
                default => $decision->cause($rule->id(), $rule->evidence($pair->pair)) ??
                    $pair->withForms($decision->cause($rule->id(), $rule->evidence($pair->bare)), $rule, $decision),
            };
            if ($cause !== null) {
                return $cause;
            }
        }

        return null;
    }

    /** @param list<CauseRule> $rules */
    private function first(array $rules, NormalisedPair $pair): ?Cause
    {
        foreach ($rules as $rule) {
            if (($cause = $pair->explainedBy($rule)) !== null) {
                return $cause;
            }
        }

        return null;
    }
}
