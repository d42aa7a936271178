<?php

declare(strict_types=1);

namespace NineTally\Tests\Pathological;

use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Data that would break a careless engine: it ends, within the memory promised, with a right answer. */
final class HostileDeliveriesTest extends TestCase
{
    use TemporaryFiles;

    private const MEGABYTE = 1024 * 1024;

    public function test_one_key_in_every_row_needs_no_more_memory_than_any_other(): void
    {
        $path = $this->written('one-key.csv', 80_000, static fn(int $row): string => "KB,same key in every row,{$row}\n");

        [$rows, $memory] = $this->tallied($path, $path);

        self::assertSame(['repeated' => 160_000], $rows);
        // Held as arrays, the rows of that one key would be 42 MB.
        self::assertLessThan(32 * self::MEGABYTE, $memory);
    }

    public function test_memory_does_not_grow_with_the_delivery(): void
    {
        $source = $this->written(
            'old.csv',
            300_000,
            static fn(int $row): string => "KB,berth {$row},holder of berth number {$row} in the old register\n",
        );
        $target = $this->written(
            'new.csv',
            300_000,
            static fn(int $row): string => 'KB,berth '.
                (299_999 - $row).
                ',holder of berth number '.
                (299_999 - $row).
                " in the old register\n",
        );

        [$rows, $memory] = $this->tallied($source, $target);

        self::assertSame([], $rows);
        // Both sides are 32 MB on disk and would be ten times that as arrays.
        self::assertLessThan(32 * self::MEGABYTE, $memory);
    }

    public function test_a_record_longer_than_the_limit_is_refused_and_skipped(): void
    {
        $path = $this->folder().'/long.csv';
        $file = fopen($path, 'wb') ?: throw new \RuntimeException;
        fwrite($file, "basin,berth,note\nKB,1,short\nKB,2,\"");
        for ($megabyte = 0; $megabyte < 18; $megabyte++) {
            fwrite($file, str_repeat("Quay wall weeps; look again in spring.\n", 26_887));
        }
        fwrite($file, "\"\nKB,3,short\n");
        fclose($file);

        [$rows] = $this->tallied($path, $path);

        self::assertSame(['refused' => 2], $rows);
    }

    #[DataProvider('longRecords')]
    public function test_a_record_of_millions_of_lines_or_cells_needs_no_more_than_its_bytes(string $record): void
    {
        $path = $this->folder().'/long.csv';
        file_put_contents($path, "basin,berth\nKB,1\n".$record);

        [$rows, $memory] = $this->tallied($path, $path);

        self::assertSame(['refused' => 2], $rows);
        self::assertLessThan(50 * self::MEGABYTE, $memory);
    }

    /** @return iterable<string, array{string}> */
    public static function longRecords(): iterable
    {
        yield 'lines in a quote that stays open' => ['"'.str_repeat("x,\n", self::MEGABYTE)];
        yield 'delimiters' => [str_repeat(',', 4 * self::MEGABYTE)."\n"];
        yield 'delimiters behind a quoted cell' => ['"KB"'.str_repeat(',', 4 * self::MEGABYTE)."\n"];
    }

    /** @param \Closure(int): string $line */
    private function written(string $name, int $rows, \Closure $line): string
    {
        $path = $this->folder().'/'.$name;
        $file = fopen($path, 'wb') ?: throw new \RuntimeException;
        fwrite($file, "basin,berth,note\n");
        for ($row = 0; $row < $rows; $row++) {
            fwrite($file, $line($row));
        }
        fclose($file);

        return $path;
    }

    /** @return array{array<string, int>, int} findings by class, and the bytes that the run needed at most */
    private function tallied(string $source, string $target): array
    {
        [$old, $new] = [DelimitedReader::detecting($source, 'old.csv'), DelimitedReader::detecting($target, 'new.csv')];
        $run = new TallyRun(
            Plan::pairing($old->columns, $new->columns, ['basin', 'berth']),
            new Sides($old, $new),
            $this->folder('work'),
            settings: new TallySettings(32 * self::MEGABYTE),
        );
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $rows = [];
        foreach ($run->findings() as $finding) {
            $rows[$finding->class->value] = ($rows[$finding->class->value] ?? 0) + 1;
        }

        return [$rows, memory_get_peak_usage() - $before];
    }
}
