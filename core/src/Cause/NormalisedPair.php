<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/** A pair of cells as they stand, and the same pair with its differences of form taken away. */
final readonly class NormalisedPair
{
    /** @param list<TextForm> $forms what was taken away, in the order of application */
    private function __construct(public CellPair $pair, public CellPair $bare, public array $forms) {}

    public static function of(CellPair $pair, FormCombination $forms): self
    {
        [$bare, $effective] = $forms->withoutForms($pair);

        return new self($pair, $bare, $effective);
    }

    /** Of a pair that has no differences of form. */
    public static function withoutForms(CellPair $pair): self
    {
        return new self($pair, $pair, []);
    }

    public function explainedBy(CauseRule $rule): ?Cause
    {
        // Two numbers or two days that lie near each other are still different ones, whatever is taken away from how they are written.
        if ($rule->id() === CauseId::NearText && ($this->pair->numbers() !== null || $this->pair->moments() !== null)) {
            return null;
        }
        $facts = $rule->facts($this->pair);
        if ($facts !== null) {
            return Cause::of($rule->id(), $facts);
        }
        $facts = $this->forms === [] ? null : $rule->facts($this->bare);

        return $facts === null
            ? null
            : Cause::of($rule->id(), $facts + ['forms' => $this->needed(static fn(CellPair $pair): bool => $rule->facts($pair) !== null)]);
    }

    /** Names the forms that had to be taken away before the rule could see its evidence. */
    public function withForms(?Cause $cause, PatternRule $rule, ColumnDecision $decision): ?Cause
    {
        return $cause === null || $this->forms === [] ? $cause : new Cause($cause->ids, $cause->facts + [
            'forms' => $this->needed(static fn(CellPair $pair): bool => $decision->cause($rule->id(), $rule->evidence($pair)) !== null),
        ]);
    }

    /**
     * Puts one form after the other back, as long as the rule still holds.
     *
     * @param  \Closure(CellPair): bool  $holds
     * @return string ids joined with +, in the order of the catalogue
     */
    private function needed(\Closure $holds): string
    {
        $needed = $this->forms;
        foreach (array_keys($this->forms) as $position) {
            $fewer = $needed;
            unset($fewer[$position]);
            [$source, $target] = [$this->pair->source, $this->pair->target];
            foreach ($fewer as $form) {
                [$source, $target] = [$form->canonical($source), $form->canonical($target)];
            }
            $needed = $holds($this->pair->with($source, $target)) ? $fewer : $needed;
        }
        $ids = array_map(static fn(TextForm $form): string => $form->id()->value, $needed);

        return implode('+', array_intersect(array_column(CauseId::cases(), 'value'), $ids));
    }
}
