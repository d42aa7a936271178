<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Profile\PossibleReading;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * Proposes the kind of a pair, and the forms that its columns declare, from both sides together: of all readings that the values of each
 * column allow, those are taken under which most rows that meet agree. A column that fits several readings alike is asked about.
 *
 * @phpstan-import-type Declared from DeclaredReading
 * @phpstan-import-type ReadingDocument from PossibleReading
 */
final readonly class FormAdvice
{
    private const MOST_WAYS = 24;

    private const EXAMPLES = 3;

    /** One way is better than the next when so many of a hundred rows more agree. */
    private const LEAD_PERCENT = 2;

    /** @param int $thisYear years of two digits are held against a hundred years that end with it, too */
    public function __construct(private int $thisYear) {}

    /**
     * @param  list<ReadingDocument>  $source  in which the values of the column can be read
     * @param  list<ReadingDocument>  $target
     * @param  list<array{string, string}>  $cells  of rows that meet
     * @param  array{list<string>, list<string>}  $values  of both columns, for where no rows meet
     * @return FormProposal|null null where no kind but text fits both columns
     */
    public function of(array $source, array $target, array $cells, array $values): ?FormProposal
    {
        $isOfRows = $cells !== [];
        $cells = $isOfRows ? $cells : $this->likelyPairs(...$values);
        $filled = array_values(array_filter($cells, static fn(array $pair): bool => $pair[0] !== '' && $pair[1] !== ''));
        $ways = [];
        foreach ($this->candidates($source, $target) as [$kind, $ofSource, $ofTarget]) {
            $way = $this->way($kind, $ofSource, $ofTarget, $filled);
            // Hundred years that read every row alike are the same; day and month first are not, for the next row may tell them apart.
            $ways[$this->readAlike($way, $filled)] ??= $way;
        }
        usort($ways, static fn(FormWay $one, FormWay $other): int => $other->count() <=> $one->count());
        if ($ways === []) {
            return null;
        }
        $best = $ways[0];
        $ways = [
            $best,
            ...array_filter(array_slice($ways, 1), fn(FormWay $way): bool => $this->isRival($way, $best, count($filled))),
        ];
        $asText = array_map(static fn(array $pair): bool => $pair[0] === $pair[1], $filled);
        $next = $ways[1] ?? new FormWay(Kind::Text, [], [], $asText);

        return new FormProposal(
            $ways,
            count($filled),
            count(array_filter($asText)),
            array_slice($this->placesIn($cells, $filled, $ways[0]->alone($next)), 0, self::EXAMPLES),
            $isOfRows,
        );
    }

    /** Whether it is as good as the best, or nearly so. */
    private function isRival(FormWay $way, FormWay $best, int $rows): bool
    {
        return ($best->count() - $way->count()) * 100 < self::LEAD_PERCENT * max(1, $rows) && $way->kind === $best->kind;
    }

    /**
     * @param  list<ReadingDocument>  $source
     * @param  list<ReadingDocument>  $target
     * @return list<array{Kind, Declared, Declared}> ways that both columns allow, the likelier first
     */
    private function candidates(array $source, array $target): array
    {
        $candidates = [];
        foreach ($this->withCenturies($source) as $one) {
            foreach ($this->withCenturies($target) as $other) {
                $kind = self::common($one['kind'], $other['kind']);
                // Numbers on both sides are numbers, though each of them could be a day.
                if ($kind !== null && ! ($one['isWeak'] && $other['isWeak'])) {
                    $candidates[] = [$kind, $one['declares'], $other['declares']];
                }
            }
        }

        return array_slice($candidates, 0, self::MOST_WAYS);
    }

    private static function common(string $one, string $other): ?Kind
    {
        $ofTime = [Kind::Date->value, Kind::DateTime->value];

        return match (true) {
            $one === $other => Kind::from($one),
            in_array($one, $ofTime, true) && in_array($other, $ofTime, true) => Kind::DateTime,
            default => null,
        };
    }

    /**
     * @param  list<ReadingDocument>  $readings
     * @return list<ReadingDocument> a reading of two-digit years once for each hundred years that they may be of
     */
    private function withCenturies(array $readings): array
    {
        $all = [];
        foreach ($readings as $reading) {
            $froms = isset($reading['declares']['twoDigitYearsFrom'])
                ? array_unique([$reading['declares']['twoDigitYearsFrom'], $this->thisYear - 99, 1930])
                : [null];
            foreach ($froms as $from) {
                $all[] = $from === null ? $reading : [...$reading, 'declares' => [...$reading['declares'], 'twoDigitYearsFrom' => $from]];
            }
        }

        return $all;
    }

    /**
     * @param  Declared  $source
     * @param  Declared  $target
     * @param  list<array{string, string}>  $cells
     */
    private function way(Kind $kind, array $source, array $target, array $cells): FormWay
    {
        [$ofSource, $ofTarget] = [DeclaredReading::of($source, $kind), DeclaredReading::of($target, $kind)];
        $read = [[], []];
        $agrees = [];
        foreach ($cells as [$one, $other]) {
            $canonical = $read[0][$one] ??= self::canonical($ofSource, $one);
            $agrees[] = $canonical !== '' && $canonical === ($read[1][$other] ??= self::canonical($ofTarget, $other));
        }

        return new FormWay($kind, $source, $target, $agrees);
    }

    /** @param list<array{string, string}> $cells */
    private function readAlike(FormWay $way, array $cells): string
    {
        [$ofSource, $ofTarget] = [DeclaredReading::of($way->source, $way->kind), DeclaredReading::of($way->target, $way->kind)];
        $read = hash_init('xxh128');
        foreach ($cells as [$one, $other]) {
            hash_update($read, self::canonical($ofSource, $one)."\n".self::canonical($ofTarget, $other)."\n");
        }

        $century = ['twoDigitYearsFrom' => true];

        return serialize([
            $way->kind->value,
            $cells === [] ? $way->source : array_diff_key($way->source, $century),
            $cells === [] ? $way->target : array_diff_key($way->target, $century),
            hash_final($read),
        ]);
    }

    /** @return string '' where it cannot be read */
    private static function canonical(Reading $reading, string $value): string
    {
        return match ($reading->kind) {
            Kind::Number => $reading->number($value)?->canonical(),
            Kind::YesNo => ($yes = $reading->yesOrNo($value)) === null ? null : ($yes ? 'yes' : 'no'),
            default => $reading->moment($value)?->canonical(),
        } ?? '';
    }

    /**
     * Where no rows meet, values are held against the one of the other side that they are most likely the same as.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @return list<array{string, string}>
     */
    private function likelyPairs(array $source, array $target): array
    {
        $likely = [];
        foreach ($target as $value) {
            $likely[LikelyValue::of($value)->canonical] ??= $value;
        }
        $pairs = [];
        foreach (array_unique($source) as $value) {
            $other = $likely[LikelyValue::of($value)->canonical] ?? null;
            if ($other !== null) {
                $pairs[] = [$value, $other];
            }
        }

        return $pairs;
    }

    /**
     * @param  list<array{string, string}>  $cells
     * @param  list<array{string, string}>  $filled  those of them with a value on both sides
     * @param  list<int>  $places  among the filled
     * @return list<int> among all
     */
    private function placesIn(array $cells, array $filled, array $places): array
    {
        $ofFilled = array_keys(array_filter($cells, static fn(array $pair): bool => $pair[0] !== '' && $pair[1] !== ''));

        return array_map(static fn(int $place): int => $ofFilled[$place], $places);
    }
}
