<?php

declare(strict_types=1);

/**
 * Two registers of any size for measuring, the same for the same seed. No row is held: each is made from its number.
 *
 * About 120 bytes a row; 12 % of rows with quotes, 1.5 % with a line end inside, 10 % not ASCII. Of the source's rows 0.5 % are
 * changed, 0.2 % missing, 0.05 % repeated; the target has 0.2 % more.
 */
final readonly class Registers
{
    public const COLUMNS = [
        'basin', 'berth', 'holder', 'boat', 'length', 'fee', 'paid_until', 'status', 'notes', 'inspector', 'post', 'phone',
    ];

    private const HARD = [
        'basin' => 'basin',
        'berth' => 'berth',
        'phone' => 'telephone',
        'post' => 'electric_post',
        'inspector' => 'seen_by',
        'notes' => 'remarks',
        'status' => 'state',
        'paid_until' => 'paid_to',
        'fee' => 'amount',
        'length' => 'length_m',
        'boat' => 'vessel',
        'holder' => 'owner',
    ];

    private const BASINS = ['KB', 'LM', 'NQ', 'OT', 'PW', 'RS', 'TH', 'UV'];

    private const FIRST = ['Ezekiel', 'Ottoline', 'Brid', 'Soren', 'Aurelio', 'Wanda', 'Nnedi', 'Ilse', 'Tomasz', 'Hester'];

    private const LAST = [
        'Pennywhistle',
        "O'Marrow",
        'Lindqvist',
        'Quillfeather',
        'Fenwright',
        'Saltmarsh',
        'Underbridge',
        'Van der Moor',
        'Ashcombe-Lane',
        'Thornøy',
    ];

    private const BOATS = [
        'Second Breakfast',
        'Slow Heron',
        'Marguerite',
        'Kingfisher II',
        'Tres Lente',
        'Old Ned',
        'Wide Awake',
        'Periwinkle',
    ];

    /** @param string $shape shuffled, same-order, hard, missing, changed, one-key, wide */
    public function __construct(private int $rows, private string $shape, private int $columns = 12, private int $seed = 20_261_125) {}

    /** @return array{source: string, target: string} */
    public function write(string $folder): array
    {
        @mkdir($folder, 0777, true);
        $name = "{$this->shape}-{$this->rows}-{$this->columns}";
        $paths = ['source' => "{$folder}/{$name}-old.csv", 'target' => "{$folder}/{$name}-new.csv"];
        if (! is_file($paths['target'])) {
            $this->writeSide($paths['source'], fn(int $number): string => $this->source($number), self::COLUMNS);
            $this->writeSide(
                $paths['target'],
                fn(int $number): string => $this->target($this->shuffled($number)),
                $this->shape === 'hard' ? array_values(self::HARD) : self::COLUMNS,
            );
        }

        return $paths;
    }

    /** @return array<string, string> source column => target column, where the names differ */
    public function map(): array
    {
        return $this->shape === 'hard'
            ? array_filter(self::HARD, static fn(string $target, string $source): bool => $target !== $source, ARRAY_FILTER_USE_BOTH)
            : [];
    }

    /**
     * @param  Closure(int): string  $row
     * @param  list<string>  $names
     */
    private function writeSide(string $path, Closure $row, array $names): void
    {
        $file = fopen($path.'.part', 'wb') ?: throw new RuntimeException($path);
        $more = array_map(static fn(int $number): string => "more_{$number}", $this->columns > 12 ? range(13, $this->columns) : []);
        $buffer = implode(',', [...$names, ...$more])."\n";
        for ($number = 0; $number < $this->rows; $number++) {
            $buffer .= $row($number);
            if (strlen($buffer) > 1 << 20) {
                fwrite($file, $buffer);
                $buffer = '';
            }
        }
        fwrite($file, $buffer);
        fclose($file);
        rename($path.'.part', $path);
    }

    /** A permutation of the rows: a full-period step through them (Knuth, volume 2, section 3.2.1). */
    private function shuffled(int $number): int
    {
        if ($this->shape === 'same-order') {
            return $number;
        }
        $step = 1_000_003;
        while ($this->gcd($step, $this->rows) !== 1) {
            $step += 2;
        }

        return ($number * $step + 12_345) % $this->rows;
    }

    private function gcd(int $a, int $b): int
    {
        return $b === 0 ? $a : $this->gcd($b, $a % $b);
    }

    private function source(int $number): string
    {
        return $this->line($this->cells($number, $this->random($number) % 2_000 === 7 ? $number - 1 : $number));
    }

    private function target(int $number): string
    {
        $random = $this->random($number);
        if ($this->shape === 'missing' || $random % 500 === 3) {
            return $this->line($this->cells($number, $number + 2 * $this->rows));
        }
        $cells = $this->cells($number, $number);
        if ($random % 1_000 < ($this->shape === 'changed' ? 300 : 5)) {
            $cells['fee'] = $random % 3 === 0 ? '' : (string) ((float) $cells['fee'] + (1 + $number % 977) / 4);
        }
        if ($this->shape !== 'hard') {
            return $this->line($cells);
        }
        $cells['fee'] = $cells['fee'] === '' ? '' : (str_contains($cells['fee'], '.') ? $cells['fee'].'00' : $cells['fee'].'.00');
        $cells['paid_until'] = implode('/', array_reverse(explode('-', $cells['paid_until'])));
        $cells['holder'] = mb_strtoupper($cells['holder']);
        $hard = [];
        foreach (array_keys(self::HARD) as $name) {
            $hard[$name] = $cells[$name];
        }

        return $this->line($hard);
    }

    /** @return array<string, string> */
    private function cells(int $number, int $key): array
    {
        $random = $this->random($number);
        $note = match (true) {
            $random % 1_000 < 15 => "Ladder loose\nasked twice",
            $random % 100 < 12 => 'Says "not before noon", twice',
            default => 'Quay wall weeps',
        };
        $cells = [
            'basin' => $this->shape === 'one-key' && $number % 2 === 0 ? 'KB' : self::BASINS[$key % 8],
            'berth' => $this->shape === 'one-key' && $number % 2 === 0 ? '1' : sprintf('%08d', $key),
            'holder' => self::FIRST[$random % 10].' '.self::LAST[intdiv($random, 10) % 10],
            'boat' => self::BOATS[$random % 8],
            'length' => (5 + $random % 17).'.'.(1 + $random % 9),
            'fee' => (180 + $random % 1_300).'.'.(11 + $random % 80),
            'paid_until' => sprintf('2027-%02d-%02d', $random % 12 + 1, intdiv($random, 12) % 28 + 1),
            'status' => ['A', 'S', 'V'][$random % 3],
            'notes' => $note,
            'inspector' => ['mjw', 'tb', 'hl'][$random % 3],
            'post' => ['Y', 'N'][$random % 2],
            'phone' => '0'.(1_000_000_000 + $random % 899_999_999),
        ];
        for ($column = 13; $column <= $this->columns; $column++) {
            $cells["more_{$column}"] = (string) ($random % (97 + $column));
        }

        return $cells;
    }

    /** A number from 0 that looks like chance and depends on the seed and the row alone (a multiply and shift hash). */
    private function random(int $number): int
    {
        $mixed = (($number ^ $this->seed) * 2_654_435_761) & 0x7FFFFFFFFFFF;

        return (($mixed ^ ($mixed >> 17)) * 40_503) >> 5 & 0x3FFFFFFF;
    }

    /** @param array<string, string> $cells */
    private function line(array $cells): string
    {
        foreach ($cells as $name => $cell) {
            if (strpbrk($cell, ",\"\n") !== false) {
                $cells[$name] = '"'.str_replace('"', '""', $cell).'"';
            }
        }

        return implode(',', $cells)."\n";
    }
}
