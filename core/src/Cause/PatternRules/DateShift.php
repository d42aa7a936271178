<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\PatternRules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\PatternRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Value\Moment;

/** Days or times that all lie by one offset apart, or by two offsets an hour apart that follow the clock change of a zone. */
final readonly class DateShift implements PatternRule
{
    private const HOUR = 3_600;

    /** Their clocks go forward on days of their own: the European Union's, the United States', and those of the south. */
    private const ZONES = ['Europe/London', 'America/New_York', 'Australia/Sydney', 'America/Santiago', 'Pacific/Auckland'];

    /** @var list<\DateTimeZone> */
    private array $zones;

    public function __construct()
    {
        $this->zones = array_map(static fn(string $name): \DateTimeZone => new \DateTimeZone($name), self::ZONES);
    }

    public function id(): CauseId
    {
        return CauseId::DateShift;
    }

    public function evidence(CellPair $pair): array
    {
        $moments = $pair->moments();
        if ($moments === null || $moments[0]->isInstant() !== $moments[1]->isInstant() || $moments[0]->fraction !== $moments[1]->fraction) {
            return [];
        }
        [$source, $target] = $moments;
        $seconds = $target->secondsSinceEpoch() - $source->secondsSinceEpoch();
        if ($seconds === 0) {
            return [];
        }
        if ($source->isDay() && $target->isDay()) {
            return ['days:'.intdiv($seconds, Moment::SECONDS_OF_DAY)];
        }

        return [
            $seconds % 900 === 0 && abs($seconds) <= Moment::SECONDS_OF_DAY
                ? "seconds:{$seconds}:".$this->clocks($source)
                : "seconds:{$seconds}",
        ];
    }

    public function decide(array $counts, int $cells): array
    {
        $byAmount = [];
        foreach ($counts as $evidence => $count) {
            [$unit, $amount] = explode(':', $evidence);
            $byAmount["{$unit}:{$amount}"] = ($byAmount["{$unit}:{$amount}"] ?? 0) + $count;
        }
        $best = $this->mostFrequent($byAmount);
        if ($best === null) {
            return [];
        }
        [$holds, $cellsInTwo] = $this->withClockChange($counts, $byAmount);
        if ($cellsInTwo >= $byAmount[$best] && $cellsInTwo > 0) {
            return $holds;
        }
        $facts = [explode(':', $best)[0] => (int) explode(':', $best)[1]];

        return $byAmount[$best] < self::LEAST
            ? []
            : array_fill_keys(
                array_values(
                    array_filter(
                        array_keys($counts),
                        static fn(string $evidence): bool => $evidence === $best || str_starts_with($evidence, $best.':'),
                    ),
                ),
                $facts,
            );
    }

    /**
     * Two offsets an hour apart, where a zone's clocks are forward for all cells of the one and for none of the other.
     *
     * @param  array<string, int>  $counts
     * @param  array<string, int>  $byAmount
     * @return array{array<string, array<string, string|int>>, int} what holds, and how many cells it explains
     */
    private function withClockChange(array $counts, array $byAmount): array
    {
        $best = [[], 0];
        // Where one of the two offsets is none, only the cells of the other are findings.
        foreach (array_keys(['seconds:0' => 0] + $byAmount) as $standard) {
            [$unit, $amount] = explode(':', $standard);
            if ($unit !== 'seconds') {
                continue;
            }
            // Towards the zone's time an hour is added while its clocks are forward; away from it, taken off.
            foreach (self::ZONES as $position => $zone) {
                foreach ([self::HOUR, -self::HOUR] as $change) {
                    [$holds, $explained] = $this->following($counts, (int) $amount, $change, $position);
                    $other = (int) $amount + $change;
                    $isWhole =
                        $explained === ($byAmount[$standard] ?? 0) + ($byAmount["seconds:{$other}"] ?? ($other === 0 ? 0 : $explained + 1));
                    if ($isWhole && $explained >= self::LEAST && $explained > $best[1]) {
                        $best = [
                            array_fill_keys($holds, ['seconds' => (int) $amount, 'clock_change' => $change, 'zone' => $zone]),
                            $explained,
                        ];
                    }
                }
            }
        }

        return $best;
    }

    /**
     * @param  array<string, int>  $counts
     * @return array{list<string>, int} the evidence that follows the zone's clocks, and its cells
     */
    private function following(array $counts, int $amount, int $change, int $zone): array
    {
        $holds = [];
        $explained = 0;
        foreach ($counts as $evidence => $count) {
            [$unit, $seconds, $clocks] = [...explode(':', $evidence), '', ''];
            $isForward = ((int) $clocks >> $zone & 1) === 1;
            if ($unit === 'seconds' && $clocks !== '' && (int) $seconds === ($isForward ? $amount + $change : $amount)) {
                $holds[] = $evidence;
                $explained += $count;
            }
        }

        return [$holds, $explained];
    }

    /** @param array<string, int> $byAmount */
    private function mostFrequent(array $byAmount): ?string
    {
        $best = null;
        foreach ($byAmount as $amount => $count) {
            if (
                $best === null ||
                [-$count, abs((int) explode(':', $amount)[1]), $amount] < [-$byAmount[$best], abs((int) explode(':', $best)[1]), $best]
            ) {
                $best = $amount;
            }
        }

        return $best;
    }

    /** @return int a bit for each zone whose clocks are forward at that time */
    private function clocks(Moment $source): int
    {
        $mask = 0;
        foreach ($this->zones as $position => $zone) {
            $mask |=
                (new \DateTimeImmutable('@'.$source->secondsSinceEpoch()))->setTimezone($zone)->format('I') === '1' ? 1 << $position : 0;
        }

        return $mask;
    }
}
