<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\SignedDifference;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Value\Blankness;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * Compares the cells of one column pair under its rules.
 *
 * Holds a bounded memo of value pairs: the same few differ again and again in a column.
 */
final class ColumnComparison
{
    /** Longer values seldom come twice. */
    private const MEMO_BYTES = 200;

    /** Said of a cause that was found against what the crosswalk wants. */
    private const AGAINST_ENTRY = ['against' => 'entry'];

    /**
     * Whether cells that are equal as bytes must be read all the same: the sides read them differently, or a crosswalk counts its values.
     */
    public readonly bool $readsEqualBytes;

    public readonly bool $hasCrosswalk;

    public readonly bool $hasBlankTokens;

    private readonly CellPair $emptyPair;

    /** What stands in an entry of the crosswalk is a value of the target, and is read as one. */
    private readonly CellPair $emptyEntryPair;

    private readonly ?CrosswalkEntries $entries;

    private readonly CanonicalForm $sourceForm;

    private readonly CanonicalForm $targetForm;

    /** @var array<string, true> */
    private readonly array $forgiven;

    /** Whether a text without a declared meaning is all that stands here, so that simple differences can be told at once. */
    private readonly bool $isPlain;

    private readonly CellResult $identical;

    private readonly SimpleDifference $simple;

    private readonly ReadableCells $readable;

    private readonly AllowedDifference $allowed;

    /** @var array<string, CellResult> */
    private array $memo = [];

    /** Of the room that all columns share. */
    private int $taken = 0;

    /** @var array<string, Cause> */
    private array $settled = [];

    public function __construct(
        public readonly ColumnPair $pair,
        private readonly Reading $source,
        private readonly Reading $target,
        private readonly CauseCatalogue $catalogue,
        private readonly MemoRoom $room = new MemoRoom,
    ) {
        $this->readsEqualBytes = ! $source->isLike($target) || $pair->crosswalk !== [];
        $this->hasCrosswalk = $pair->crosswalk !== [];
        $this->hasBlankTokens = $source->hasBlankTokens() || $target->hasBlankTokens();
        $this->emptyPair = new CellPair('', '', $source, $target);
        $this->emptyEntryPair = new CellPair('', '', $target, $target);
        $this->entries = $pair->crosswalk === [] ? null : new CrosswalkEntries($pair, $source, $catalogue->forms);
        $this->sourceForm = new CanonicalForm($source, $pair->forgives, $catalogue->forms);
        $this->targetForm = new CanonicalForm($target, $pair->forgives, $catalogue->forms);
        $this->forgiven = array_fill_keys($pair->forgives, true);
        $this->isPlain =
            in_array($pair->kind, [Kind::Text, Kind::Number], true) &&
            ! $source->hasBlankTokens() &&
            ! $target->hasBlankTokens() &&
            $source->numbers->decimalMark === '.' &&
            $target->numbers->decimalMark === '.';
        $this->identical = CellResult::identical();
        $this->simple = new SimpleDifference(
            $pair->kind === Kind::Text,
            $this->ofForm([CauseId::LetterCase]),
            $this->ofForm([CauseId::NumberForm]),
        );
        $this->readable = new ReadableCells($pair->kind, $source, $target);
        $this->allowed = new AllowedDifference($pair);
    }

    public function classify(string $source, string $target): CellResult
    {
        if ($source === $target && ! $this->readsEqualBytes) {
            return $this->identical;
        }
        if ($this->isPlain && $this->entries === null && ($simple = $this->simple->of($source, $target)) !== null) {
            return $simple;
        }
        $values = $source.KeyTuple::SEPARATOR.$target;
        if (isset($this->memo[$values])) {
            return $this->memo[$values];
        }
        $entry = $this->entries?->target($source);
        $judgement =
            $entry === null
                ? $this->read($this->emptyPair->with($source, $target))
                : $this->againstEntry($source, $this->emptyEntryPair->with($entry, $target));
        if (strlen($values) < self::MEMO_BYTES) {
            $taken = count($this->memo) < MemoRoom::OWN ? 0 : $this->room->take($judgement);
            $this->taken += $taken;
            if ($taken === 0 && count($this->memo) >= MemoRoom::OWN) {
                $this->room->giveBack($this->taken);
                $this->taken = 0;
                $this->memo = [];
            }
            $this->memo[$values] = $judgement;
        }

        return $judgement;
    }

    /** The cause of a cell that waited for its column. */
    public function resolve(string $source, string $target, string $moved, ColumnDecision $decision): Cause
    {
        $values = implode(KeyTuple::SEPARATOR, [$source, $target, $moved]);
        if (isset($this->settled[$values])) {
            return $this->settled[$values];
        }
        $entry = $this->entries?->target($source);
        $pair = NormalisedPair::of(
            $entry === null ? $this->emptyPair->with($source, $target) : $this->emptyEntryPair->with($entry, $target),
            $this->catalogue->forms,
        );
        $cause = $this->catalogue->decided($pair, $decision, $moved) ?? $this->catalogue->valueAfter($pair);
        $facts = ($entry === null ? [] : self::AGAINST_ENTRY) + ($cause->ids === [CauseId::None] ? $this->clock($pair->pair) : []);
        $cause = $facts === [] ? $cause : new Cause($cause->ids, $cause->facts + $facts);
        if (count($this->settled) === MemoRoom::OWN) {
            $this->settled = [];
        }

        return $this->settled[$values] = $cause;
    }

    /** Whether a value of the source is not among the crosswalk's. */
    public function lacksEntry(string $source): bool
    {
        return $this->entries !== null && $this->entries->lacks($source);
    }

    /** Whether the source has no value; the target. */
    public function isBlankInSource(string $source): bool
    {
        return $this->source->isBlank($source);
    }

    public function isBlankInTarget(string $target): bool
    {
        return $this->target->isBlank($target);
    }

    /** Of a pair of numbers that no crosswalk translates, with its cause if it is known; null where a value is no number. */
    public function difference(string $source, string $target, string $cause = ''): ?SignedDifference
    {
        return $this->hasCrosswalk ? null : $this->readable->difference($source, $target, $cause === CauseId::NumberForm->value);
    }

    private function read(CellPair $pair): CellResult
    {
        $early = $this->blankness($pair) ?? $this->equalBytes($pair);
        if ($early !== null) {
            return $early;
        }
        $isPlain = $this->isPlain && ! $this->allowed->isPossible();
        if ($isPlain && SimpleDifference::areDigits($pair->source) && SimpleDifference::areDigits($pair->target)) {
            return $this->value(NormalisedPair::withoutForms($pair));
        }
        $bare = NormalisedPair::of($pair, $this->catalogue->forms);

        return $this->readable->of($bare) ?? $this->form($bare) ?? $this->allowed->of($pair) ?? $this->value($bare);
    }

    private function blankness(CellPair $pair): ?CellResult
    {
        [$isBlankInSource, $isBlankInTarget] = [$pair->isBlankInSource(), $pair->isBlankInTarget()];

        return match (true) {
            $isBlankInSource && $isBlankInTarget => $pair->source === $pair->target ? $this->identical : null,
            $isBlankInTarget && ! Blankness::showsNothing($pair->source) => CellResult::blank(CauseId::Blanked),
            $isBlankInSource && ! Blankness::showsNothing($pair->target) => CellResult::blank(CauseId::Filled),
            default => null,
        };
    }

    /** Equal bytes are equal values, but not where the sides read them differently: 03/04/2024 is two days under two date forms. */
    private function equalBytes(CellPair $pair): ?CellResult
    {
        if ($pair->source !== $pair->target) {
            return null;
        }
        $differs = match ($pair->kind()) {
            Kind::Text => false,
            Kind::Number => ($numbers = $pair->numbers()) !== null && ! $numbers[0]->isEqualTo($numbers[1]),
            Kind::Date, Kind::DateTime => ($moments = $pair->moments()) !== null && ! $moments[0]->isEqualTo($moments[1]),
            Kind::YesNo => ($yes = $this->source->yesOrNo($pair->source)) !== null &&
                ($also = $this->target->yesOrNo($pair->target)) !== null &&
                $yes !== $also,
        };

        return $differs || $this->source->canRead($pair->source) !== $this->target->canRead($pair->target) ? null : $this->identical;
    }

    private function form(NormalisedPair $bare): ?CellResult
    {
        $ids = $bare->pair->source === $bare->pair->target ? null : $this->catalogue->forms->explain($bare);

        return $ids === null ? null : $this->ofForm($ids, in_array(CauseId::DateForm, $ids, true) ? $this->clock($bare->pair) : []);
    }

    /**
     * @param  non-empty-list<CauseId>  $ids
     * @param  array<string, string|int>  $facts
     */
    private function ofForm(array $ids, array $facts = []): CellResult
    {
        return $this->forgives($ids) ? CellResult::forgiven(new Cause($ids, $facts)) : CellResult::changed(new Cause($ids, $facts));
    }

    /** @param non-empty-list<CauseId> $ids */
    private function forgives(array $ids): bool
    {
        foreach ($ids as $id) {
            if (! isset($this->forgiven[$id->value])) {
                return false;
            }
        }

        return true;
    }

    /**
     * Where the crosswalk has an entry, the entry's target is what must stand there, blank or not.
     *
     * @param  CellPair  $pair  the entry's target, and what stands in the target
     */
    private function againstEntry(string $source, CellPair $pair): CellResult
    {
        [$isBlank, $isBlankInTarget] = [$pair->isBlankInSource(), $pair->isBlankInTarget()];
        if ($pair->source === $pair->target || $isBlank && $isBlankInTarget) {
            return CellResult::forgiven(Cause::of(CauseId::Crosswalk));
        }
        $bare = NormalisedPair::of($pair, $this->catalogue->forms);
        $ids = $this->catalogue->forms->explain($bare);
        if ($ids !== null && $this->forgives($ids)) {
            return CellResult::forgiven(Cause::of(CauseId::Crosswalk, ['forms' => (new Cause($ids))->id]));
        }
        if ($source === $pair->target || $this->sourceForm->of($source) === $this->targetForm->of($pair->target)) {
            return CellResult::changed(Cause::of(CauseId::Untranslated));
        }

        return match (true) {
            $isBlankInTarget => CellResult::blank(CauseId::Blanked, self::AGAINST_ENTRY),
            $isBlank => CellResult::blank(CauseId::Filled, self::AGAINST_ENTRY),
            $ids !== null => CellResult::changed(new Cause($ids, self::AGAINST_ENTRY)),
            default => $this->readable->of($bare) ?? $this->allowed->of($pair) ?? $this->value($bare, self::AGAINST_ENTRY),
        };
    }

    /** @param array<string, string|int> $facts */
    private function value(NormalisedPair $bare, array $facts = []): CellResult
    {
        $cause = $this->catalogue->valueBefore($bare);

        return $cause !== null
            ? CellResult::changed($facts === [] ? $cause : new Cause($cause->ids, $cause->facts + $facts))
            : CellResult::undecided($this->catalogue->evidence($bare));
    }

    /** @return array<string, string> */
    private function clock(CellPair $pair): array
    {
        $moments = $this->pair->kind === Kind::DateTime ? $pair->moments() : null;

        return $moments !== null && ($moments[0]->otherOffset !== null || $moments[1]->otherOffset !== null) ? ['clock' => 'twice'] : [];
    }
}
