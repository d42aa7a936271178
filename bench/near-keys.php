<?php

declare(strict_types=1);

/*
 * Near keys: how long it takes to find for each row of the source the row of the target that it is, where no key says so, and how many are
 * found. Holders of many languages are made with a seed, errors are planted in their names, streets and dates, and as many rows stand on
 * each side that have no partner. The search is held against comparing all with all for some rows.
 *
 *     php -d opcache.enable_cli=1 -d opcache.jit=tracing -d opcache.jit_buffer_size=64M bench/near-keys.php ROWS [COMPARED WITH ALL] [hard]
 */

use Faker\Factory;
use NineTally\Core\Likeness\LikenessColumn;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Likeness\LikenessSearch;
use NineTally\Core\Likeness\NearPair;
use NineTally\Core\Likeness\OneToOne;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

require dirname(__DIR__).'/vendor/autoload.php';

[$rows, $whole] = [(int) ($argv[1] ?? 10_000), (int) ($argv[2] ?? 100)];
$isHard = ($argv[3] ?? '') === 'hard';
$locales = ['en_GB', 'de_DE', 'fr_FR', 'nb_NO', 'pl_PL', 'tr_TR', 'el_GR', 'ru_RU', 'hu_HU', 'it_IT', 'pt_BR', 'ja_JP', 'vi_VN', 'nl_NL'];
mt_srand(9);
$fakers = array_map(static function (string $locale): Faker\Generator {
    $faker = Factory::create($locale);
    $faker->seed(9);

    return $faker;
}, $locales);

$swap = static function (string $value): string {
    $letters = mb_str_split($value);
    $at = mt_rand(0, max(0, count($letters) - 2));
    switch (mt_rand(0, 3)) {
        case 0: array_splice($letters, $at, 1);
            break;
        case 1: array_splice($letters, $at, 0, [$letters[$at] ?? '']);
            break;
        case 2: $letters[$at] = 'e';
            break;
        default: [$letters[$at], $letters[$at + 1]] = [$letters[$at + 1] ?? '', $letters[$at] ?? ''];
    }

    return implode('', $letters);
};
$words = static function (string $value): string {
    $words = explode(' ', $value);

    return match (mt_rand(0, 3)) {
        0 => implode(' ', array_reverse($words)),
        1 => implode(' ', [...array_slice($words, 1), mb_substr($words[0], 0, 1).'.']),
        2 => mb_strtoupper($value),
        default => mb_substr($value, 0, max(8, mb_strlen($value) - 4)),
    };
};
$bent = static function (array $cells) use ($swap, $words): array {
    // One to three errors in a row, wherever they fall.
    for ($errors = mt_rand(1, 3); $errors > 0; $errors--) {
        $at = mt_rand(0, 3);
        $cells[$at] = match (true) {
            $at === 2 => date('Y-m-d', (int) strtotime($cells[2]) + 86_400 * mt_rand(-3, 3)),
            $at === 3 => $cells[3] === '' || mt_rand(0, 4) === 0 ? '' : $swap($cells[3]),
            mt_rand(0, 1) === 0 => $swap($cells[$at]),
            default => $words($cells[$at]),
        };
    }

    return $cells;
};
$sides = ['source' => [], 'target' => []];
$truth = $before = [];
for ($row = 0; $row < $rows; $row++) {
    $faker = $fakers[$row % count($fakers)];
    $cells = [
        $faker->name(),
        $faker->streetAddress(),
        $faker->date('Y-m-d', '2020-01-01'),
        sprintf('%s-%05d', $faker->randomElement(['KB', 'LM', 'NQ']), mt_rand(0, 99_999)),
    ];
    if ($isHard) {
        $cells[3] = '';
        // One of a family: another name at an address that is taken, or the same name elsewhere.
        if ($row % 6 < 2 && $before !== []) {
            [$cells[0], $cells[1]] = mt_rand(0, 1) === 0 ? [$before[0], $cells[1]] : [$cells[0], $before[1]];
        }
        $before = $cells;
    }
    // A sixth of the rows stands on one side alone, and another sixth on the other.
    match ($row % 6) {
        0 => $sides['source'][] = $cells,
        1 => $sides['target'][] = [$row, $cells],
        default => [$truth[count($sides['source'])] = $row, $sides['source'][] = $cells, $sides['target'][] = [$row, $bent($cells)]],
    };
}
shuffle($sides['target']);
$at = array_flip(array_column($sides['target'], 0));
$truth = array_map(static fn(int $row): int => $at[$row], $truth);
$date = new Reading(Kind::Date);
$columns = [
    new LikenessColumn(LikenessKind::Words, 8), new LikenessColumn(LikenessKind::Words, 6),
    new LikenessColumn(LikenessKind::Date, 3, $date, $date), new LikenessColumn(LikenessKind::Code, 5),
];
printf("%d rows and %d rows, %d of them the same\n", count($sides['source']), count($sides['target']), count($truth));
$before = memory_get_peak_usage();
$began = microtime(true);
$search = new LikenessSearch($columns);
foreach ($sides['target'] as [, $cells]) {
    $search->add($cells);
}
$search->calibrate($sides['source']);
printf("  lists made        %6.1f s, %d MB\n", microtime(true) - $began, (memory_get_peak_usage() - $before) / 1e6);
$candidates = [];
foreach ($sides['source'] as $cells) {
    $candidates[] = $search->candidates($cells);
}
printf("  candidates found  %6.1f s, %d MB\n", microtime(true) - $began, (memory_get_peak_usage() - $before) / 1e6);
$found = OneToOne::of($candidates);
printf(
    "  one to one        %6.1f s, %d MB; %d rows by auction\n",
    microtime(true) - $began,
    (memory_get_peak_usage() - $before) / 1e6,
    $found->approximate,
);
$isAmong = count(
    array_filter(
        $truth,
        static fn(int $target, int $source): bool => in_array($target, array_column($candidates[$source], 0), true),
        ARRAY_FILTER_USE_BOTH,
    ),
);
printf("  the true one is among the candidates of %.2f %%\n", (100 * $isAmong) / count($truth));
foreach ([0.6, 0.7, 0.8, 0.9] as $cut) {
    foreach ([0.0, 0.05] as $margin) {
        $taken = array_filter($found->pairs, static fn(NearPair $pair): bool => $pair->score >= $cut && $pair->margin() >= $margin);
        $right = count(array_filter($taken, static fn(NearPair $pair): bool => ($truth[$pair->source] ?? -1) === $pair->target));
        printf(
            "  from %.2f, margin %.2f: precision %6.2f %%, recall %6.2f %%\n",
            $cut,
            $margin,
            (100 * $right) / max(1, count($taken)),
            (100 * $right) / count($truth),
        );
    }
}
$missed = $compared = 0;
$began = microtime(true);
foreach (array_rand($truth, min($whole, count($truth))) as $source) {
    $best = 0.0;
    foreach ($sides['target'] as [, $cells]) {
        $best = max($best, $search->likeness($sides['source'][$source], $cells));
    }
    if ($best >= 0.7) {
        $compared++;
        $missed += ($candidates[$source][0][1] ?? 0.0) < $best - 1e-9 ? 1 : 0;
    }
}
printf(
    "  held against all with all: the most alike of %d of %d found (%.1f s)\n",
    $compared - $missed,
    $compared,
    microtime(true) - $began,
);
