<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What the command says by its exit status, and in one message. */
final class ExitStatusTest extends TestCase
{
    use RunsTally;

    use TemporaryFiles;

    public function test_quiet_prints_nothing_but_what_was_asked_for(): void
    {
        $file = $this->file("basin,berth\nKB,1\n,2\n");

        self::assertSame('', $this->command([$file, $file, '--key=basin,berth', '--quiet'])->getOutput());
        self::assertStringStartsWith('{"rows"', $this->command([$file, $file, '--key=basin,berth', '--quiet', '--json'])->getOutput());
        self::assertSame('', $this->command([$file, $file, '--key=basin,berth', '--quiet'])->getErrorOutput());
    }

    public function test_exit_status_0_says_that_all_agree(): void
    {
        $file = $this->file("basin,berth\nKB,1\nKB,2\n");
        $process = $this->command([$file, $file, '--key=basin,berth']);

        self::assertSame(0, $process->getExitCode());
        self::assertStringContainsString(
            "Source 2 read = 0 refused + 2 delivered\n       2 delivered + 0 made = 0 left out + 0 condensed + 2 prepared\n       2 ".
                "prepared = 2 agreed + 0 changed + 0 missing + 0 repeated + 0 unkeyed\n",
            $process->getOutput(),
        );
    }

    public function test_a_refused_record_is_a_difference(): void
    {
        $process = $this->command([
            $this->file("basin,berth\nKB,1\nKB\n", 'old.csv'),
            $this->file("basin,berth\nKB,1\n", 'new.csv'),
            '--key=basin,berth',
        ]);

        self::assertSame(1, $process->getExitCode());
    }

    /** As many rows as there were records prove nothing where steps make, condense or leave out rows. */
    #[DataProvider('prepared')]
    public function test_the_exit_status_goes_by_prepared_rows(string $old, string $new, string $condition, int $status, string $says): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $preparation = [
            ['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'id', 'test' => 'is', 'value' => $condition]],
            ['id' => 'b', 'kind' => 'columns-into-rows', 'columns' => ['jan', 'feb'], 'namesInto' => 'm', 'valuesInto' => 'v'],
        ];
        $plan = $this->file(
            (string) json_encode([
                'formatVersion' => 3,
                'key' => [$same('id'), $same('m')],
                'columnPairs' => [['id' => 'pair-000000000000', ...$same('v')]],
                'sides' => ['source' => ['preparation' => $preparation], 'target' => ['preparation' => $preparation]],
            ]),
            'plan.json',
        );
        $process = $this->command([
            $this->file("id,jan,feb\n{$old}", 'old.csv'),
            $this->file("id,jan,feb\n{$new}", 'new.csv'),
            "--plan={$plan}",
        ]);

        self::assertSame($status, $process->getExitCode(), $process->getOutput());
        self::assertStringContainsString($says, $process->getOutput().$process->getErrorOutput());
    }

    /** @return iterable<string, array{string, string, string, int, string}> */
    public static function prepared(): iterable
    {
        yield 'two of four long rows differ' => ["1,10,20\n2,30,40\n", "1,10,21\n2,30,41\n", '9', 1, '4 prepared = 2 agreed + 2 changed'];
        yield 'four long rows of two wide ones agree' => [
            "1,10,20\n2,30,40\n",
            "1,10,20\n2,30,40\n",
            '9',
            0,
            '2 delivered + 2 made = 0 left out + 0 condensed + 4 prepared',
        ];
        yield 'the rest of the rows agrees' => [
            "1,10,20\n2,30,40\n",
            "1,10,20\n",
            '2',
            0,
            'By decision, steps left out 1 row of the source and 0 rows of the target.',
        ];
        yield 'a side that the steps emptied' => [
            "2,30,40\n",
            "1,10,20\n",
            '2',
            1,
            'The steps leave out every row of the source (the last of them by step 1: Leave out rows where id is "2"), so nothing could '.
                'be compared.',
        ];
    }

    /** @param list<string> $arguments */
    #[DataProvider('notUsable')]
    public function test_exit_status_2_comes_with_one_clear_message_and_leaves_nothing_behind(
        string $old,
        string $new,
        array $arguments,
        string $says,
    ): void {
        $out = $this->folder().'/out';
        $process = $this->command([$this->file($old, 'old.csv'), $this->file($new, 'new.csv'), "--out={$out}", ...$arguments]);

        self::assertSame(2, $process->getExitCode());
        self::assertSame('', $process->getOutput());
        self::assertStringContainsString($says, $process->getErrorOutput());
        self::assertStringNotContainsString('.php', $process->getErrorOutput());
        self::assertSame([], is_dir($out) ? array_diff((array) scandir($out), ['.', '..']) : []);
    }

    /** @return iterable<string, array{string, string, list<string>, string}> */
    public static function notUsable(): iterable
    {
        $good = "basin,berth,fee\nKB,1,2\n";
        yield 'an empty file' => ['', $good, ['--key=basin'], 'old.csv" is empty'];
        yield 'no key' => [$good, $good, [], 'No key was given. Name the columns that tell one row from another, such as --key=basin.'];
        yield 'a key column that is not there' => [
            $good,
            $good,
            ['--key=bassin'],
            'has no column "bassin". Its columns are: basin, berth, fee.',
        ];
        yield 'a key column that only one side has' => [$good, "quay,fee\n1,2\n", ['--key=basin'], 'new.csv" has no column "basin"'];
        yield 'an unknown mapped column' => [$good, $good, ['--key=basin', '--map=fee:charge'], 'new.csv" has no column "charge"'];
        yield 'a map that is no pair' => [$good, $good, ['--key=basin', '--map=fee'], '--map=fee is not a pair'];
        yield 'duplicate header names that the plan touches' => [
            "basin,fee,fee\nKB,1,2\n",
            $good,
            ['--key=basin'],
            'names column "fee" 2 times, so nobody can say which one is meant. Say which by its place, as "fee (column 2)"',
        ];
        yield 'another kind of file' => ["PK\x03\x04", $good, ['--key=basin'], 'breaks off in the middle or is damaged'];
        yield 'a packed file that breaks off' => [
            substr((string) gzencode(str_repeat($good, 3_000)), 0, -40),
            $good,
            ['--key=basin'],
            'old.csv" breaks off',
        ];
        yield 'a JSON document that breaks off' => ['[{"basin":1},{"basin":', $good, ['--key=basin'], 'old.csv" ends in the middle'];
        yield 'JSON that is no register' => ['[1, 2]', $good, ['--key=basin'], 'no object in it has a property'];
        yield 'a plan and a key' => [$good, $good, ['--key=basin', '--plan=x'], 'Give either --plan, or --key'];
        yield 'a plan that is not there' => [$good, $good, ['--plan=/nowhere/plan.json'], 'cannot be opened'];
        yield 'no number of workers' => [$good, $good, ['--key=basin', '--workers=many'], '--workers=many is not a number of processes'];
        yield 'no size' => [$good, $good, ['--key=basin', '--memory=lots'], '--memory=lots is no size'];
        yield 'no delimiter' => [$good, $good, ['--key=basin', '--delimiter=dot'], '--delimiter is comma'];
        yield 'a header that a quote holds open' => ["basin,berth,\"fee
KB,1,2
",
            $good,
            ['--key=basin'],
            'the quote opened on line 1 is never closed',
        ];
        yield 'a worker that cannot read on' => [
            substr((string) gzencode(str_repeat($good, 3_000)), 0, -40),
            $good,
            ['--key=basin', '--workers=2'],
            'old.csv" breaks off',
        ];
        yield 'a reference without a file' => [
            $good,
            $good,
            ['--key=basin', '--reference=Basins'],
            '--reference=Basins names no file. Write --reference=name=file.',
        ];
        yield 'a folder and what it says' => [
            $good,
            $good,
            ['--from=/nowhere'],
            'The folder of --from says all that a tally is made of. Take source, target out.',
        ];
        yield 'an unknown option' => [$good, $good, ['--keys=basin'], 'The "--keys" option does not exist'];
    }

    public function test_header_only_is_a_warning(): void
    {
        $process = $this->command([
            $this->file("basin,berth\n", 'old.csv'),
            $this->file("basin,berth\nKB,1\n", 'new.csv'),
            '--key=basin,berth',
        ]);

        self::assertSame(1, $process->getExitCode());
        self::assertStringContainsString('Warning: The source delivers no rows', $process->getErrorOutput());
    }

    public function test_a_folder_and_a_file_that_is_not_there_are_named(): void
    {
        self::assertStringContainsString(
            '"/nowhere" holds no tally: tally.json is not there',
            $this->command(['--from=/nowhere'])->getErrorOutput(),
        );
        self::assertStringContainsString('Name the file of the source and the file of the target', $this->command([])->getErrorOutput());
        $file = $this->file("basin\nKB\n");

        self::assertStringContainsString('is a folder', $this->command([$this->folder(), $file, '--key=basin'])->getErrorOutput());
        self::assertStringContainsString('cannot be opened', $this->command([$file, '/nowhere/new.csv', '--key=basin'])->getErrorOutput());
    }
}
