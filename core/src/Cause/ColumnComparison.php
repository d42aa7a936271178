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

    /** Whether cells that are equal as bytes must be read all the same: the sides read them differently, or a crosswalk counts its values. */
    public readonly bool $readsEqualBytes;

    private readonly CellPair $template;

    /** @var array<string, true> */
    private readonly array $forgiven;

    /** Whether a text without a declared meaning is all that stands here, so that simple differences can be told at once. */
    private readonly bool $isPlain;

    private readonly Judgement $identical;

    private readonly Judgement $letterCase;

    private readonly Judgement $numberForm;

    /** @var array<string, Judgement> */
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
        $this->template = new CellPair('', '', $source, $target);
        $this->forgiven = array_fill_keys($pair->forgives, true);
        $this->isPlain = in_array($pair->kind, [Kind::Text, Kind::Number], true) && ! $source->hasBlankTokens() && ! $target->hasBlankTokens() && $source->numbers->decimalMark === '.' && $target->numbers->decimalMark === '.';
        $this->identical = Judgement::identical();
        $this->letterCase = $this->ofForm([CauseId::LetterCase]);
        $this->numberForm = $this->ofForm([CauseId::NumberForm]);
    }

    public function judge(string $source, string $target): Judgement
    {
        if ($source === $target && ! $this->readsEqualBytes) {
            return $this->identical;
        }
        if ($this->isPlain && ($simple = $this->simple($source, $target)) !== null) {
            return $simple;
        }
        $values = $source.KeyTuple::SEPARATOR.$target;
        if (isset($this->memo[$values])) {
            return $this->memo[$values];
        }
        $judgement = $this->read($this->template->with($source, $target));
        if (strlen($values) < self::MEMO_BYTES) {
            if (count($this->memo) === self::MEMO_SIZE) {
                $this->memo = [];
            }
            $this->memo[$values] = $judgement;
        }

        return $judgement;
    }

    /** The cause of a cell that waited for its column. */
    public function settle(string $source, string $target, string $moved, ColumnDecision $decision): Cause
    {
        $values = implode(KeyTuple::SEPARATOR, [$source, $target, $moved]);
        if (isset($this->settled[$values])) {
            return $this->settled[$values];
        }
        $pair = BarePair::of($this->asTheCrosswalkSays($this->template->with($source, $target)), $this->catalogue->forms);
        $cause = $this->catalogue->decided($pair, $decision, $moved) ?? $this->catalogue->valueAfter($pair);
        if (count($this->settled) === self::MEMO_SIZE) {
            $this->settled = [];
        }

        return $this->settled[$values] = $cause;
    }

    /** Whether a value of the source is not among the crosswalk's. */
    public function lacksEntry(string $source): bool
    {
        return $this->pair->crosswalk !== [] && ! isset($this->pair->crosswalk[$source]) && ! $this->source->isBlank($source);
    }

    /** Differences that a look at the bytes proves: capitals alone, zeros at the end of a number alone. No cause that comes earlier can explain them. */
    private function simple(string $source, string $target): ?Judgement
    {
        $length = strlen($source);
        if ($length !== 0 && strspn($source, '0123456789.') === $length && $target !== '' && strspn($target, '0123456789.') === strlen($target)) {
            $isNumber = $source !== $target && substr_count($source, '.') <= 1 && substr_count($target, '.') <= 1
                && $this->withoutZeros($source) === $this->withoutZeros($target) && ($source[0] !== '0' || ($source[1] ?? '.') === '.') && $source[0] !== '.' && $target[0] !== '.';

            return $isNumber ? $this->numberForm : null;
        }
        if ($this->pair->kind === Kind::Text && $length === strlen($target) && $source !== $target && preg_match('/[\x80-\xFF]/', $source.$target) !== 1 && strcasecmp($source, $target) === 0) {
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

    private function read(CellPair $pair): Judgement
    {
        $early = $this->blankness($pair) ?? $this->equalBytes($pair);
        if ($early !== null) {
            return $early;
        }
        if ($this->isPlain && $this->pair->tolerance === null && $this->pair->rounding === null && $this->pair->crosswalk === [] && $this->areDigits($pair->source) && $this->areDigits($pair->target)) {
            return $this->value(BarePair::withoutForms($pair));
        }
        $bare = BarePair::of($pair, $this->catalogue->forms);

        return $this->readable($bare) ?? $this->form($bare) ?? $this->allowed($bare) ?? $this->value($bare);
    }

    private function blankness(CellPair $pair): ?Judgement
    {
        [$isBlankInSource, $isBlankInTarget] = [$pair->isBlankInSource(), $pair->isBlankInTarget()];

        return match (true) {
            $isBlankInSource && $isBlankInTarget => $pair->source === $pair->target ? $this->identical : null,
            $isBlankInTarget && ! Blankness::showsNothing($pair->source) => Judgement::blank(CauseId::Blanked),
            $isBlankInSource && ! Blankness::showsNothing($pair->target) => Judgement::blank(CauseId::Filled),
            default => null,
        };
    }

    /** Equal bytes are equal values, but not where the sides read them differently: 03/04/2024 is two days under two date forms. */
    private function equalBytes(CellPair $pair): ?Judgement
    {
        if ($pair->source !== $pair->target) {
            return null;
        }
        $differs = match ($pair->kind()) {
            Kind::Text => false,
            Kind::Number => ($numbers = $pair->numbers()) !== null && ! $numbers[0]->isEqualTo($numbers[1]),
            Kind::Date, Kind::DateTime => ($moments = $pair->moments()) !== null && $moments[0]->canonical() !== $moments[1]->canonical(),
            Kind::YesNo => ($yes = $this->source->yesOrNo($pair->source)) !== null && ($also = $this->target->yesOrNo($pair->target)) !== null && $yes !== $also,
        };

        return $differs || $this->source->canRead($pair->source) !== $this->target->canRead($pair->target) ? null : $this->identical;
    }

    private function readable(BarePair $bare): ?Judgement
    {
        $pair = $bare->pair;
        if ($this->pair->kind === Kind::Text || $pair->isBlankInSource() || $pair->isBlankInTarget()) {
            return null;
        }
        $source = $this->source->canRead($pair->source) || $this->source->canRead($bare->bare->source);
        $target = $this->target->canRead($pair->target) || $this->target->canRead($bare->bare->target);

        return $source === $target ? null : Judgement::changed(Cause::of(CauseId::Unreadable, ['side' => $source ? 'target' : 'source', 'kind' => $this->pair->kind->noun()]));
    }

    private function form(BarePair $bare): ?Judgement
    {
        $ids = $bare->pair->source === $bare->pair->target ? null : $this->catalogue->forms->explain($bare);

        return $ids === null ? null : $this->ofForm($ids);
    }

    /** @param non-empty-list<CauseId> $ids */
    private function ofForm(array $ids): Judgement
    {
        return $this->forgives($ids) ? Judgement::forgiven(new Cause($ids)) : Judgement::changed(new Cause($ids));
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

    private function allowed(BarePair $bare): ?Judgement
    {
        $mapped = $this->asTheCrosswalkSays($bare->pair);
        if ($mapped !== $bare->pair) {
            if ($mapped->source === $mapped->target) {
                return Judgement::forgiven(Cause::of(CauseId::Crosswalk));
            }
            $ids = $this->catalogue->forms->explain(BarePair::of($mapped, $this->catalogue->forms));
            if ($ids !== null) {
                return $this->forgives($ids) ? Judgement::forgiven(Cause::of(CauseId::Crosswalk, ['forms' => (new Cause($ids))->id])) : Judgement::changed(new Cause($ids));
            }
        }

        return $this->tolerated($mapped) ?? $this->rounded($mapped);
    }

    private function asTheCrosswalkSays(CellPair $pair): CellPair
    {
        $target = $this->pair->crosswalk[$pair->source] ?? null;

        return $target === null ? $pair : $pair->with($target, $pair->target);
    }

    private function tolerated(CellPair $pair): ?Judgement
    {
        $tolerance = $this->pair->tolerance;
        if ($tolerance === null) {
            return null;
        }
        if (($numbers = $pair->numbers()) !== null) {
            [$source, $target] = [$numbers[0]->toBigDecimal(), $numbers[1]->toBigDecimal()];
            if ($source !== null && $target !== null && $tolerance->allowsNumbers($source, $target)) {
                return Judgement::forgiven(Cause::of(CauseId::Tolerance), $target->minus($source));
            }
        }
        $moments = $pair->moments();
        if ($moments === null || ! $tolerance->allowsMoments(...$moments)) {
            return null;
        }
        $seconds = BigDecimal::of($moments[1]->secondsSinceEpoch() - $moments[0]->secondsSinceEpoch());

        return Judgement::forgiven(Cause::of(CauseId::Tolerance), $tolerance->measure === Tolerance::DAYS ? $seconds->dividedBy(Moment::SECONDS_OF_DAY, 5, \Brick\Math\RoundingMode::HALF_UP)->stripTrailingZeros() : $seconds);
    }

    private function rounded(CellPair $pair): ?Judgement
    {
        $numbers = $this->pair->rounding === null ? null : $pair->numbers();
        if ($this->pair->rounding === null || $numbers === null) {
            return null;
        }
        [$source, $target] = [$numbers[0]->toBigDecimal(), $numbers[1]->toBigDecimal()];

        return $source !== null && $target !== null && $this->pair->rounding->joins($source, $target)
            ? Judgement::forgiven(Cause::of(CauseId::Rounding, ['places' => $this->pair->rounding->places]))
            : null;
    }

    private function value(BarePair $bare): Judgement
    {
        $mapped = $this->asTheCrosswalkSays($bare->pair);
        $bare = $mapped === $bare->pair ? $bare : BarePair::of($mapped, $this->catalogue->forms);
        $cause = $this->catalogue->valueBefore($bare);

        return $cause !== null ? Judgement::changed($cause) : Judgement::undecided($this->catalogue->evidence($bare));
    }
}
