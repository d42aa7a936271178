<?php

declare(strict_types=1);

namespace Database\Demo;

use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * What a berth costs by basin, length band and season: wide in the old system, a column for each season in a file for each half of
 * the waterway; long in the new one, which knows basins by number and bands by their shortest length.
 *
 * The truth comes from what was planted, never from a run of the engine.
 */
final readonly class BerthCharges
{
    public const REFERENCES = ['Basins', 'Length bands'];

    private const CODES = [
        'KB', 'LM', 'NQ', 'OT', 'PW', 'RS', 'TH', 'UV', 'AB', 'BC', 'CE', 'DG', 'EH', 'FI', 'GJ', 'HK', 'IL', 'JM', 'KN', 'LO', 'MP', 'NR',
        'OS', 'PT',
    ];

    private const NAMES = [
        'Kestrel Broad', 'Lime Mere', 'North Quay', 'Otter Turn', 'Pike Wharf', 'Reed Staithe', 'Tollgate Hythe', 'Upper Vale',
        'Alder Bight', 'Brick Cut', 'Crow Elbow', 'Dyke Gate', 'Eel Hatch', 'Fen Island', 'Gravel Jetty', 'Heron Keep', 'Ivy Lock',
        'Jackdaw Mooring', 'Kiln Narrows', 'Long Oxbow', 'Marsh Pound', 'Nettle Reach', 'Oak Sluice', 'Poplar Turn',
    ];

    /** Shortest length in metres => band. */
    private const BANDS = ['0' => 'to 5 m', '5' => '5–7 m', '7' => '7–9 m', '9' => '9–12 m', '12' => '12–15 m', '15' => 'over 15 m'];

    public const SEASONS = [2021, 2022, 2023, 2024, 2025, 2026, 2027];

    private Randomizer $random;

    public function __construct(int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    /**
     * @return array{source: list<string>, target: list<string>, truth: array{rows: array{source: array<string, int>, target: array<string,
     *     int>}, cells: array<string, string>, sums: array<string, array{source: int, target: int}>}, Basins: string,
     *     'Length bands': string} paths, and what is true: key and cause of each
     *     changed cell, and by basin what all charges add up to, in pence
     */
    public function write(string $folder): array
    {
        [$charges, $cells] = $this->planted();
        $wide = $this->wide($charges);
        $paths = ['source' => []];
        foreach (['north', 'south'] as $half => $name) {
            $rows = array_slice($wide, $half * 72, 72);
            $paths['source'][] = $this->file("{$folder}/charges_{$name}.csv", [
                ['basin', 'band', ...array_map(static fn(int $season): string => "s{$season}", self::SEASONS)],
                ...$rows,
                $this->total($rows),
            ]);
        }
        $long = $this->long($charges);
        file_put_contents(
            "{$folder}/tariff.jsonl",
            implode(
                '',
                array_map(static fn(array $row): string => json_encode($row, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)."\n", $long),
            ),
        );
        $paths['Basins'] = $this->file("{$folder}/basins.csv", [
            ['id', 'code', 'name'],
            ...array_map(
                static fn(string $code, string $name, int $nth): array => [(string) ($nth + 1), $code, $name],
                self::CODES,
                self::NAMES,
                array_keys(self::CODES),
            ),
        ]);
        $paths['Length bands'] = $this->file("{$folder}/length_bands.csv", [
            ['from_m', 'band', 'fee'],
            ...array_map(
                static fn(int|string $from, string $band): array => [(string) $from, $band, sprintf('%d.50', 20 + (int) $from * 6)],
                array_keys(self::BANDS),
                self::BANDS,
            ),
        ]);
        $all = count(self::CODES) * count(self::BANDS) * count(self::SEASONS);
        $missing = count(array_filter($charges, static fn(array $charge): bool => $charge['target'] === null));

        return [...$paths, 'target' => ["{$folder}/tariff.jsonl"], 'truth' => [
            'rows' => [
                'source' => [
                    'read' => 146,
                    'refused' => 0,
                    'delivered' => 146,
                    'left_out' => 2,
                    'made' => $all - 144,
                    'condensed' => 0,
                    'prepared' => $all,
                    'agreed' => $all - $missing - count($cells),
                    'changed' => count($cells),
                    'missing' => $missing,
                ],
                'target' => [
                    'read' => count($long),
                    'refused' => 0,
                    'delivered' => count($long),
                    'left_out' => 0,
                    'made' => 0,
                    'condensed' => 0,
                    'prepared' => count($long),
                    'agreed' => $all - $missing - count($cells),
                    'changed' => count($cells),
                    'extra' => 3,
                ],
            ],
            'cells' => $cells,
            'sums' => $this->sums($charges),
        ]];
    }

    /**
     * @return array{list<array{basin: int, from: string, season: int, source: string, target: string|null}>, array<string, string>}
     *     charges, and key => cause of those that were bent
     */
    private function planted(): array
    {
        $charges = [];
        foreach (array_keys(self::CODES) as $basin) {
            foreach (array_keys(self::BANDS) as $from) {
                foreach (self::SEASONS as $season) {
                    $charge = sprintf(
                        '%d.%02d',
                        20 + (int) $from * 6 + $basin + $season - 2021,
                        (($basin * 7 + (int) $from * 3 + $season) % 80) + 12,
                    );
                    $charges[] = [
                        'basin' => $basin,
                        'from' => (string) $from,
                        'season' => $season,
                        'source' => $charge,
                        'target' => $charge,
                    ];
                }
            }
        }
        $free = $this->random->shuffleArray(array_keys($charges));
        $cells = [];
        foreach (['rounding' => 9, 'none' => 5, 'blanked' => 6] as $cause => $count) {
            for ($nth = 0; $nth < $count; $nth++) {
                $at = array_pop($free) ?? throw new \LogicException('More was planted than there are charges.');
                $charge = $charges[$at];
                $charge['target'] = match ($cause) {
                    'rounding' => (string) (int) $charge['source'],
                    'none' => sprintf('%.2F', (float) $charge['source'] + 3.07 + $nth),
                    default => '',
                };
                $charges[$at] = $charge;
                $cells[sprintf('%s,%s,%d', self::CODES[$charge['basin']], self::BANDS[$charge['from']], $charge['season'])] = $cause;
            }
        }
        for ($nth = 0; $nth < 4; $nth++) {
            $at = array_pop($free) ?? throw new \LogicException('More was planted than there are charges.');
            $charges[$at] = ['target' => null] + $charges[$at];
        }
        // Two errors that cancel each other out, in the first basin that has none.
        $bent = array_unique(
            array_column(array_filter($charges, static fn(array $one): bool => $one['source'] !== $one['target']), 'basin'),
        );
        $whole = array_values(array_diff(array_keys(self::CODES), $bent))[0] ?? throw new \LogicException('Every basin was bent.');
        $first = $whole * count(self::BANDS) * count(self::SEASONS);
        foreach ([$first => 12.41, $first + 9 => -12.41] as $at => $by) {
            $charge = $charges[$at] ?? throw new \LogicException('A basin has that many charges.');
            $charge['target'] = sprintf('%.2F', (float) $charge['source'] + $by);
            $charges[$at] = $charge;
            $cells[sprintf('%s,%s,%d', self::CODES[$charge['basin']], self::BANDS[$charge['from']], $charge['season'])] = 'none';
        }

        return [$charges, $cells];
    }

    /**
     * @param  list<array{basin: int, from: string, season: int, source: string, target: string|null}>  $charges
     * @return array<string, array{source: int, target: int}> by basin; the new system has three more of one that nobody knows
     */
    private function sums(array $charges): array
    {
        $pence = static fn(?string $charge): int => (int) round(100 * (float) $charge);
        $sums = ['' => ['source' => 0, 'target' => 3 * 8_000]];
        foreach ($charges as $charge) {
            $code = self::CODES[$charge['basin']];
            $sums[$code]['source'] = ($sums[$code]['source'] ?? 0) + $pence($charge['source']);
            $sums[$code]['target'] = ($sums[$code]['target'] ?? 0) + $pence($charge['target']);
        }

        return $sums;
    }

    /**
     * @param  list<array{basin: int, from: string, season: int, source: string, target: string|null}>  $charges
     * @return list<list<string>>
     */
    private function wide(array $charges): array
    {
        $rows = [];
        foreach (array_chunk($charges, count(self::SEASONS)) as $nth => $ofRow) {
            // The old system wrote hyphens, and now and then a space too many.
            $rows[] = [
                self::CODES[$ofRow[0]['basin']],
                str_replace('–', '-', self::BANDS[$ofRow[0]['from']]).($nth % 9 === 4 ? "\u{A0}" : ''),
                ...array_column($ofRow, 'source'),
            ];
        }

        return $rows;
    }

    /**
     * @param  list<array{basin: int, from: string, season: int, source: string, target: string|null}>  $charges
     * @return list<array{basin_id: int, length_from: string, season: string, charge: string}>
     */
    private function long(array $charges): array
    {
        $rows = [];
        foreach ($charges as $charge) {
            if ($charge['target'] !== null) {
                $rows[] = [
                    'basin_id' => $charge['basin'] + 1,
                    'length_from' => $charge['from'],
                    'season' => (string) $charge['season'],
                    'charge' => str_replace('.', ',', $charge['target']),
                ];
            }
        }
        foreach ([2028, 2029, 2030] as $season) {
            $rows[] = ['basin_id' => 99, 'length_from' => '9', 'season' => (string) $season, 'charge' => '80,00'];
        }

        return $this->random->shuffleArray($rows);
    }

    /**
     * @param  list<list<string>>  $rows
     * @return list<string>
     */
    private function total(array $rows): array
    {
        $total = ['', 'total'];
        foreach (array_keys(self::SEASONS) as $nth) {
            $total[] = sprintf('%.2F', array_sum(array_map(floatval(...), array_column($rows, $nth + 2))));
        }

        return $total;
    }

    /** @param list<list<string>> $rows */
    private function file(string $path, array $rows): string
    {
        file_put_contents($path, implode('', array_map(static fn(array $row): string => implode(',', $row)."\n", $rows)));

        return $path;
    }
}
