<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use Brick\Math\BigDecimal;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Value\Blankness;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Reading;
use NineTally\Core\Value\Tolerance;

/**
 * Compares the cells of one column pair under its rules.
 *
 * Holds a bounded memo of value pairs: the same few differ again and again in a column.
 */
final class ColumnComparison
{
    private const MEMO_SIZE = 2_048;

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

    private readonly CellResult $letterCase;

    private readonly CellResult $numberForm;

    /** @var array<string, CellResult> */
    private array $memo = [];

    /** @var array<string, Cause> */
    private array $settled = [];

    public function __construct(
        public readonly ColumnPair $pair,
        private readonly Reading $source,
        private readonly Reading $target,
        private readonly CauseCatalogue $catalogue,
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
        $this->letterCase = $this->ofForm([CauseId::LetterCase]);
        $this->numberForm = $this->ofForm([CauseId::NumberForm]);
    }

    public function classify(string $source, string $target): CellResult
    {
        if ($source === $target && ! $this->readsEqualBytes) {
            return $this->identical;
        }
        if ($this->isPlain && $this->entries === null && ($simple = $this->simple($source, $target)) !== null) {
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
            if (count($this->memo) === self::MEMO_SIZE) {
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
        if (count($this->settled) === self::MEMO_SIZE) {
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

    /**
     * Differences that a look at the bytes proves: capitals alone, zeros at the end of a number alone. No cause that comes earlier can
     * explain them.
     */
    private function simple(string $source, string $target): ?CellResult
    {
        $length = strlen($source);
        if (
            $length !== 0 &&
            strspn($source, '0123456789.') === $length &&
            $target !== '' &&
            strspn($target, '0123456789.') === strlen($target)
        ) {
            $isNumber =
                $source !== $target &&
                substr_count($source, '.') <= 1 &&
                substr_count($target, '.') <= 1 &&
                $this->withoutZeros($source) === $this->withoutZeros($target) &&
                ($source[0] !== '0' || ($source[1] ?? '.') === '.') &&
                $source[0] !== '.' &&
                $target[0] !== '.';

            return $isNumber ? $this->numberForm : null;
        }
        if (
            $this->pair->kind === Kind::Text &&
            $length === strlen($target) &&
            $source !== $target &&
            preg_match('/[\x80-\xFF]/', $source.$target) !== 1 &&
            strcasecmp($source, $target) === 0
        ) {
            return $this->letterCase;
        }

        return null;
    }

    /** A plain number without leading zeros has no other form than another number's, and that was looked for before. */
    private function areDigits(string $value): bool
    {
        return $value !== '' && $value[0] !== '0' && strspn($value, '0123456789.') === strlen($value) && substr_count($value, '.') <= 1;
    }

    private function withoutZeros(string $number): string
    {
        return str_contains($number, '.') ? rtrim(rtrim($number, '0'), '.') : $number;
    }

    private function read(CellPair $pair): CellResult
    {
        $early = $this->blankness($pair) ?? $this->equalBytes($pair);
        if ($early !== null) {
            return $early;
        }
        if (
            $this->isPlain &&
            $this->pair->tolerance === null &&
            $this->pair->rounding === null &&
            $this->areDigits($pair->source) &&
            $this->areDigits($pair->target)
        ) {
            return $this->value(NormalisedPair::withoutForms($pair));
        }
        $bare = NormalisedPair::of($pair, $this->catalogue->forms);

        return $this->readable($bare) ?? $this->form($bare) ?? $this->allowed($pair) ?? $this->value($bare);
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

    private function readable(NormalisedPair $bare): ?CellResult
    {
        $pair = $bare->pair;
        if ($this->pair->kind === Kind::Text || $pair->isBlankInSource() || $pair->isBlankInTarget()) {
            return null;
        }
        $source = $this->source->canRead($pair->source) || $this->source->canRead($bare->bare->source);
        $target = $this->target->canRead($pair->target) || $this->target->canRead($bare->bare->target);

        if ($source !== $target) {
            $side = $source ? 'target' : 'source';
            $isSkipped = $source ? $this->target->isSkipped($pair->target) : $this->source->isSkipped($pair->source);

            return CellResult::changed(
                Cause::of(
                    CauseId::Unreadable,
                    ['side' => $side, 'kind' => $this->pair->kind->noun()] + ($isSkipped ? ['clock' => 'skipped'] : []),
                ),
            );
        }

        return $this->pair->kind === Kind::DateTime ? $this->comparable($pair) : null;
    }

    /** An instant and a clock time without a zone cannot be compared. */
    private function comparable(CellPair $pair): ?CellResult
    {
        $moments = $pair->moments();
        if ($moments === null || $moments[0]->isInstant() === $moments[1]->isInstant()) {
            return null;
        }

        return CellResult::changed(
            Cause::of(CauseId::Unreadable, ['side' => $moments[0]->isInstant() ? 'target' : 'source', 'clock' => 'no-zone']),
        );
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

    private function allowed(CellPair $pair): ?CellResult
    {
        return $this->tolerated($pair) ?? $this->rounded($pair);
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
            default => $this->readable($bare) ?? $this->allowed($pair) ?? $this->value($bare, self::AGAINST_ENTRY),
        };
    }

    private function tolerated(CellPair $pair): ?CellResult
    {
        $tolerance = $this->pair->tolerance;
        if ($tolerance === null) {
            return null;
        }
        if (($numbers = $pair->numbers()) !== null) {
            [$source, $target] = [$numbers[0]->toBigDecimal(), $numbers[1]->toBigDecimal()];
            if ($source !== null && $target !== null && $tolerance->allowsNumbers($source, $target)) {
                return CellResult::forgiven(Cause::of(CauseId::Tolerance), $target->minus($source));
            }
        }
        $moments = $pair->moments();
        if ($moments === null || ! $tolerance->allowsMoments(...$moments)) {
            return null;
        }
        $seconds = BigDecimal::of($moments[1]->secondsSinceEpoch() - $moments[0]->secondsSinceEpoch());

        return CellResult::forgiven(
            Cause::of(CauseId::Tolerance),
            $tolerance->by === Tolerance::DAYS
                ? $seconds->dividedBy(Moment::SECONDS_OF_DAY, 5, \Brick\Math\RoundingMode::HALF_UP)->stripTrailingZeros()
                : $seconds,
        );
    }

    private function rounded(CellPair $pair): ?CellResult
    {
        $numbers = $this->pair->rounding === null ? null : $pair->numbers();
        if ($this->pair->rounding === null || $numbers === null) {
            return null;
        }
        [$source, $target] = [$numbers[0]->toBigDecimal(), $numbers[1]->toBigDecimal()];

        return $source !== null && $target !== null && $this->pair->rounding->joins($source, $target)
            ? CellResult::forgiven(Cause::of(CauseId::Rounding, ['places' => $this->pair->rounding->places]))
            : null;
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
