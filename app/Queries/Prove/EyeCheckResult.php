<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\EyeCheck;
use App\Models\EyeVerdict;

/**
 * What an eye check has shown so far. Of each row the last word of each person stands; a row is wrong if anybody says so, right if somebody
 * does and nobody says otherwise.
 *
 * @phpstan-type Stratum array{rows: int, population: int, looked: int, right: int, wrong: int, unclear: int, bound: float, words: string}
 */
final readonly class EyeCheckResult
{
    /** @param array{identical: Stratum, byRule: Stratum} $strata */
    private function __construct(public array $strata) {}

    public static function of(EyeCheck $check): self
    {
        $verdicts = [];
        foreach (self::standing($check) as $verdict) {
            $verdicts[$verdict->by_rule ? 'byRule' : 'identical'][$verdict->place][] = $verdict->verdict;
        }

        return new self([
            'identical' => self::stratum($check, 'identical', $verdicts['identical'] ?? []),
            'byRule' => self::stratum($check, 'byRule', $verdicts['byRule'] ?? []),
        ]);
    }

    /** @return list<EyeVerdict> the last of each person on each row */
    public static function standing(EyeCheck $check): array
    {
        $last = [];
        foreach ($check->verdicts as $verdict) {
            $last["{$verdict->user_id} {$verdict->place}"] = $verdict;
        }

        return array_values($last);
    }

    /**
     * @param  'identical'|'byRule'  $name
     * @param  array<int, list<string>>  $verdicts  by place
     * @return Stratum
     */
    private static function stratum(EyeCheck $check, string $name, array $verdicts): array
    {
        $wrong = count(array_filter($verdicts, static fn(array $said): bool => in_array('wrong', $said, true)));
        $right = count(array_filter($verdicts, static fn(array $said): bool => array_unique($said) === ['right']));
        $looked = $right + $wrong;
        [$rows, $population] = [$check->sizes[$name], $check->populations[$name]];
        $bound = $check->plan()->bound($looked, $wrong);

        return [
            'rows' => $rows,
            'population' => $population,
            'looked' => $looked,
            'right' => $right,
            'wrong' => $wrong,
            'unclear' => count($verdicts) - $looked,
            'bound' => $bound,
            'words' => self::words($check, $rows, $population, $looked, $wrong, $bound),
        ];
    }

    private static function words(EyeCheck $check, int $rows, int $population, int $looked, int $wrong, float $bound): string
    {
        [$confidence, $share] = [self::percent($check->confidence), self::percent($check->share)];
        if ($rows === 0) {
            return 'There are no such rows.';
        }
        if ($wrong > 0) {
            return sprintf(
                '%d of %d %s wrong, and one is enough: that fewer than %s are wrong is not shown. With a confidence of %s fewer than %s '.
                    'are. Find what the wrong ones have in common: a rule or a step hides a difference there. Mend it, and tally again.',
                $wrong,
                $looked,
                $wrong === 1 ? 'is' : 'are',
                $share,
                $confidence,
                self::percent(ceil($bound * 10_000) / 10_000),
            );
        }
        if ($looked < $rows) {
            return sprintf('%d of %d looked at, none of them wrong. Nothing is shown before all are looked at.', $looked, $rows);
        }

        return $rows >= $population
            ? 'All rows of this kind were looked at, and all are right.'
            : sprintf(
                'All %d are right: with a confidence of %s fewer than %s of the %s rows are wrong.',
                $rows,
                $confidence,
                $share,
                number_format($population),
            );
    }

    /** 0.95 is 95 %, 0.001 is 0.1 %. */
    public static function percent(float $share): string
    {
        return rtrim(rtrim(number_format($share * 100, 2, '.', ''), '0'), '.').' %';
    }
}
