<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Command\ByteSize;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** profile, plan check and causes, as a pipeline meets them. */
final class OtherCommandsTest extends TestCase
{
    use TemporaryFiles;

    public function test_profile_says_what_each_column_holds(): void
    {
        $file = $this->file("berth,fee\n014,10.50\n015,\n", 'old.csv');

        self::assertStringContainsString(
            "2 rows, 0 records refused\nRecords end with LF (3).\nberth: text, 0 blank, 2 distinct, 3 to 3 characters, from \"014\" to ".
                "\"015\"\nfee: number, 1 blank",
            $this->command(['profile', $file], 0)->getOutput(),
        );
        $printed = json_decode($this->command(['profile', $file, '--json'], 0)->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);
        self::assertSame(['rows', 'columns', 'line_ends'], array_keys($printed));
        self::assertStringContainsString('is empty', $this->command(['profile', $this->file('', 'empty.csv')], 2)->getErrorOutput());
    }

    public function test_advise_proposes_pairs_and_a_key_of_two_unknown_files(): void
    {
        [$old, $new] = ["basin,berth,holder\n", "c1;c2;c3\n"];
        foreach (range(1, 9_000) as $row) {
            $old .= 'B'.($row % 7).','.intdiv($row, 7).",Holder {$row}\n";
            $new .= 'Holder '.(9_001 - $row).';'.intdiv(9_001 - $row, 7).';B'.((9_001 - $row) % 7)."\n";
        }
        [$source, $target] = [$this->file($old, 'old.csv'), $this->file($new, 'new.csv')];

        $printed = json_decode($this->command(['advise', $source, $target, '--json'], 0)->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);
        self::assertSame(
            [['basin', 'c3'], ['berth', 'c2'], ['holder', 'c1']],
            array_map(
                static fn(mixed $pair): array => is_array($pair) ? [$pair['source'], $pair['target']] : [],
                (array) $printed['pairs'],
            ),
        );
        self::assertStringContainsString('key: basin + berth (of ', $this->command(['advise', $source, $target], 0)->getOutput());
        self::assertStringContainsString(
            'is empty',
            $this->command(['advise', $source, $this->file('', 'empty.csv')], 2)->getErrorOutput(),
        );
    }

    public function test_plan_check_names_every_problem_with_its_place(): void
    {
        $good = $this->file('{"formatVersion":3,"key":[{"source":"a","target":"a"}],"columnPairs":[]}', 'good.json');
        $bad = $this->file(
            '{"formatVersion":3,"key":[{"source":"a","target":"a"}],"columnPairs":[],'.
                '"sides":{"source":{"zone":"Quay","dateForms":["MM/yyyy"]}}}',
            'bad.json',
        );

        self::assertSame(
            "The plan can be used: a key of 1 column, 0 column pairs.\n",
            $this->command(['plan', 'check', $good], 0)->getOutput(),
        );
        $errors = $this->command(['plan', 'check', $bad], 2)->getErrorOutput();
        self::assertStringContainsString('/sides/source/zone: "Quay" is no time zone.', $errors);
        self::assertStringContainsString('/sides/source/dateForms/0: The date form "MM/yyyy" names no whole day.', $errors);
        self::assertStringContainsString(
            'The plan is not JSON',
            $this->command(['plan', 'check', $this->file('{', 'broken.json')], 2)->getErrorOutput(),
        );
        self::assertStringContainsString('plan check FILE', $this->command(['plan', 'mend', $good], 2)->getErrorOutput());
    }

    public function test_causes_lists_all_of_them_in_their_order(): void
    {
        $printed = json_decode($this->command(['causes', '--json'], 0)->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);

        self::assertSame(array_column(CauseId::cases(), 'value'), array_column($printed, 'id'));
        self::assertSame(12, count(array_filter(array_column($printed, 'can_be_forgiven'))));
        self::assertSame(
            ['truncated', 'offset', 'date-shift', 'translated', 'moved'],
            array_values(array_intersect_key(array_column($printed, 'id'), array_filter(array_column($printed, 'of_whole_column')))),
        );
    }

    public function test_the_version_says_whether_it_runs_at_full_speed(): void
    {
        self::assertMatchesRegularExpression('/^Nine Tally \d+\.\d+\.\d+, JIT on$/', trim($this->command(['--version'], 0)->getOutput()));
    }

    #[DataProvider('sizes')]
    public function test_reads_sizes_as_people_write_them(string $text, ?int $bytes): void
    {
        if ($bytes === null) {
            $this->expectException(UnusablePlan::class);
        }
        self::assertSame($bytes, ByteSize::read($text, 'memory', 1_000));
    }

    /** @return iterable<string, array{string, int|null}> */
    public static function sizes(): iterable
    {
        yield 'bytes' => ['4096', 4_096];
        yield 'kilobytes' => ['16k', 16_384];
        yield 'megabytes' => ['256M', 268_435_456];
        yield 'gigabytes' => ['1G', 1_073_741_824];
        yield 'too small' => ['999', null];
        yield 'nothing' => ['', null];
        yield 'a fraction' => ['1.5M', null];
        yield 'another unit' => ['16T', null];
        yield 'a negative one' => ['-1M', null];
    }

    /** @param list<string> $arguments */
    private function command(array $arguments, int $status): Process
    {
        $process = new Process([PHP_BINARY, dirname(__DIR__, 2).'/bin/nine-tally', ...$arguments]);
        $process->run();
        self::assertSame($status, $process->getExitCode(), $process->getOutput().$process->getErrorOutput());

        return $process;
    }
}
