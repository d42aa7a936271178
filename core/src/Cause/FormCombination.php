<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Value\Kind;

/** Finds the fewest causes of form that explain a difference together; among equally many, the first in the order of the catalogue. */
final readonly class FormCombination
{
    /** @var list<TextForm> the text forms in the order in which they are applied */
    private array $applied;

    /** @var list<TextForm> those of them that can touch printable ASCII */
    private array $appliedToAscii;

    /**
     * @param  list<TextForm>  $textForms  in the order of the catalogue
     * @param  list<ReadForm>  $readForms  in the order of the catalogue, after the text forms; at most one of them takes part
     * @param  list<CauseId>  $application  the text forms in the order in which they are applied: what is invisible goes before spaces are
     *     run together
     */
    public function __construct(private array $textForms, private array $readForms, array $application)
    {
        $byId = [];
        foreach ($textForms as $form) {
            $byId[$form->id()->value] = $form;
        }
        $this->applied = array_map(
            static fn(CauseId $id): TextForm => $byId[$id->value] ?? throw new \LogicException("No text form is called {$id->value}."),
            $application,
        );
        $this->appliedToAscii = array_values(
            array_filter(
                $this->applied,
                static fn(TextForm $form): bool => ! in_array(
                    $form->id(),
                    [CauseId::Invisible, CauseId::LineEnds, CauseId::Unicode, CauseId::Accents],
                    true,
                ),
            ),
        );
    }

    /**
     * @param  list<string>  $ids  of causes of form
     * @return list<TextForm> those among them that any text can have, in the order of application
     */
    public function applied(array $ids): array
    {
        return array_values(array_filter($this->applied, static fn(TextForm $form): bool => in_array($form->id()->value, $ids, true)));
    }

    /** @return non-empty-list<CauseId>|null null when more than the form differs */
    public function explain(NormalisedPair $bare): ?array
    {
        [$pair, $full, $effective] = [$bare->pair, $bare->bare, $bare->forms];
        // Of numbers, spaces at the ends and leading zeros are part of the form.
        if ($pair->kind() === Kind::Number && ($number = $this->readForm($pair)) !== null) {
            return [$number->id()];
        }
        $meetsAsText = $full->source === $full->target && $effective !== [];
        if (! $meetsAsText && $this->readForm($pair) === null && ($this->areCapitals($effective) || $this->readForm($full) === null)) {
            return null;
        }
        $most = count($effective) + 1;
        for ($size = 1; $size <= $most; $size++) {
            $found = $this->ofSize($size, $pair, $effective);
            if ($found !== null) {
                return $found;
            }
        }

        return null;
    }

    /**
     * Whether nothing but capitals was taken away: what is read is read with capitals or without.
     *
     * @param  list<TextForm>  $effective
     */
    private function areCapitals(array $effective): bool
    {
        return $effective === [] || count($effective) === 1 && $effective[0]->id() === CauseId::LetterCase;
    }

    /**
     * The pair with all differences of text form taken away.
     *
     * @return array{CellPair, list<TextForm>} and the forms that changed anything, in the order of application
     */
    public function withoutForms(CellPair $pair): array
    {
        [$source, $target] = [$pair->source, $pair->target];
        $effective = [];
        // Beyond printable ASCII few values lie, and only these can have all forms.
        foreach (preg_match('/[^\x20-\x7E]/', $source.$target) === 1 ? $this->applied : $this->appliedToAscii as $form) {
            [$newSource, $newTarget] = [$form->canonical($source), $form->canonical($target)];
            // One form may take away what another names: NFKC turns a no-break space into a space before spaces are looked at.
            $isFirst = $source === $pair->source && $target === $pair->target;
            if (
                $newSource !== $source ||
                $newTarget !== $target ||
                (! $isFirst && ($form->canonical($pair->source) !== $pair->source || $form->canonical($pair->target) !== $pair->target))
            ) {
                $effective[] = $form;
            }
            [$source, $target] = [$newSource, $newTarget];
        }

        return [$effective === [] ? $pair : $pair->with($source, $target), $effective];
    }

    /**
     * @param  list<TextForm>  $effective
     * @return non-empty-list<CauseId>|null
     */
    private function ofSize(int $size, CellPair $pair, array $effective): ?array
    {
        $best = null;
        foreach ([$size, $size - 1] as $texts) {
            foreach ($this->subsets($effective, $texts) as $subset) {
                $written = $this->apply($subset, $pair);
                $read = $texts === $size ? null : $this->readForm($written);
                if ($texts === $size ? $written->source === $written->target : $read !== null) {
                    $ids = $this->inOrder($subset, $read);
                    $best = $best === null || $this->comesBefore($ids, $best) ? $ids : $best;
                }
            }
        }

        return $best;
    }

    private function readForm(CellPair $pair): ?ReadForm
    {
        foreach ($this->readForms as $form) {
            if ($form->joins($pair)) {
                return $form;
            }
        }

        return null;
    }

    /** @param list<TextForm> $forms in the order of application */
    private function apply(array $forms, CellPair $pair): CellPair
    {
        [$source, $target] = [$pair->source, $pair->target];
        foreach ($forms as $form) {
            $source = $form->canonical($source);
            $target = $form->canonical($target);
        }

        return $pair->with($source, $target);
    }

    /**
     * @param  list<TextForm>  $forms
     * @return list<list<TextForm>>
     */
    private function subsets(array $forms, int $size): array
    {
        if ($size === 0) {
            return [[]];
        }
        $subsets = [];
        foreach ($forms as $position => $form) {
            foreach ($this->subsets(array_slice($forms, $position + 1), $size - 1) as $rest) {
                $subsets[] = [$form, ...$rest];
            }
        }

        return $subsets;
    }

    /**
     * @param  list<TextForm>  $forms
     * @return non-empty-list<CauseId>
     */
    private function inOrder(array $forms, ?ReadForm $read): array
    {
        $ids = [];
        foreach ($this->textForms as $form) {
            if (in_array($form, $forms, true)) {
                $ids[] = $form->id();
            }
        }
        if ($read !== null) {
            $ids[] = $read->id();
        }

        return $ids !== [] ? $ids : throw new \LogicException('A combination has at least one form.');
    }

    /**
     * @param  list<CauseId>  $a
     * @param  list<CauseId>  $b  as many
     */
    private function comesBefore(array $a, array $b): bool
    {
        $order = array_flip(array_map(static fn(CauseId $id): string => $id->value, CauseId::cases()));
        foreach ($a as $position => $id) {
            if ($id !== $b[$position]) {
                return $order[$id->value] < $order[$b[$position]->value];
            }
        }

        return false;
    }
}
