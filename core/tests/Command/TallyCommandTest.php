<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The command line as a pipeline meets it: exit status, standard output, standard error, files. */
final class TallyCommandTest extends TestCase
{
    use TemporaryFiles;

    private const OLD = "basin,berth,holder,fee\nKB,014,\"Thornøy, Ezekiel\",1412.60\nKB,015,Ann  Lee,10\nLM,1,A,\nNQ,7,x,1\nNQ,7,x,1\n,,y,2\nNQ,8,z,3\nbad,row\n";

    private const NEW = "basin,berth,owner,fee,loaded\nKB,015,ann lee,10.00,t\nKB,014,\"Thornøy, Ezekiel\",1412.6,t\nLM,1,A,7,t\nOT,9,=cmd,1,t\n";

    public function test_writes_what_differs_and_why(): void
    {
        $out = $this->folder('out');
        $process = $this->command([$this->file(self::OLD, 'old.csv'), $this->file(self::NEW, 'new.csv'), '--key=basin,berth', '--map=holder:owner', "--out={$out}", '--json']);

        self::assertSame(1, $process->getExitCode(), $process->getErrorOutput());
        self::assertSame(<<<'CSV'
            basin,berth,column,class,cause,source,target
            KB,014,fee,changed,number-form,1412.60,1412.6
            KB,015,holder,changed,spacing+case,Ann  Lee,ann lee
            KB,015,fee,changed,number-form,10,10.00
            LM,1,fee,filled,filled,,7

            CSV, file_get_contents("{$out}/differences.csv"));
        self::assertSame("basin,berth,holder,fee\nNQ,8,z,3\n", file_get_contents("{$out}/missing.csv"));
        self::assertSame("basin,berth,owner,fee,loaded\nOT,9,=cmd,1,t\n", file_get_contents("{$out}/extra.csv"));
        self::assertSame("side,line,basin,berth,holder,fee,owner,loaded\nsource,5,NQ,7,x,1,,\nsource,6,NQ,7,x,1,,\n", file_get_contents("{$out}/repeated.csv"));
        self::assertSame("side,line,basin,berth,holder,fee,owner,loaded\nsource,7,,,y,2,,\n", file_get_contents("{$out}/unkeyed.csv"));
        self::assertSame("side,line,reason,raw\nsource,9,2 cells where the header has 4,\"bad,row\"\n", file_get_contents("{$out}/refused.csv"));
        $printed = json_decode($process->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertSame($printed, json_decode((string) file_get_contents("{$out}/summary.json"), true, 16, JSON_THROW_ON_ERROR));
        self::assertIsArray($printed);
        self::assertSame(['rows', 'cells', 'key_forgiven', 'columns', 'patterns', 'engine'], array_keys($printed));
        self::assertSame(['compared' => 6, 'identical' => 2, 'forgiven' => 0, 'changed' => 3, 'blanked' => 0, 'filled' => 1], $printed['cells']);
        self::assertIsArray($printed['columns']);
        self::assertSame(['holder', 'fee'], array_column($printed['columns'], 'source'));
        self::assertSame(['owner', 'fee'], array_column($printed['columns'], 'target'));
        self::assertSame([], glob("{$out}/*.unfinished"));
    }

    public function test_a_plan_says_what_is_forgiven_and_it_is_listed(): void
    {
        $plan = $this->file((string) json_encode(['formatVersion' => 2, 'key' => [['source' => 'basin', 'target' => 'basin', 'forgives' => ['case']], ['source' => 'berth', 'target' => 'berth']], 'columnPairs' => [
            ['id' => 'pair-000000000000', 'source' => 'holder', 'target' => 'owner', 'forgives' => ['spacing', 'case']],
            ['id' => 'pair-000000000001', 'source' => 'fee', 'target' => 'fee', 'kind' => 'number', 'forgives' => ['number-form'], 'tolerance' => ['measure' => 'absolute', 'most' => '0.5']],
        ]]), 'plan.json');
        $out = $this->folder('out');
        $process = $this->command([$this->file(self::OLD, 'old.csv'), $this->file("basin,berth,owner,fee\nkb,014,\"Thornøy, Ezekiel\",1412.20\nKB,015,ann lee,10.00\n", 'new.csv'), "--plan={$plan}", "--out={$out}", '--json', '--list-forgiven']);

        self::assertSame(1, $process->getExitCode(), $process->getErrorOutput());
        self::assertSame("basin,berth,column,class,cause,source,target\nKB,014,fee,forgiven,tolerance,1412.60,1412.20\nKB,015,holder,forgiven,spacing+case,Ann  Lee,ann lee\nKB,015,fee,forgiven,number-form,10,10.00\n", file_get_contents("{$out}/forgiven.csv"));
        $printed = json_decode($process->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);
        self::assertSame([['source' => 'basin', 'target' => 'basin', 'cause' => 'case', 'cells' => 1]], $printed['key_forgiven']);
        self::assertSame(['compared' => 4, 'identical' => 1, 'forgiven' => 3, 'changed' => 0, 'blanked' => 0, 'filled' => 0], $printed['cells']);
        self::assertContains(['source' => 'fee', 'target' => 'fee', 'class' => 'forgiven', 'cause' => 'tolerance', 'facts' => ['largest' => '0.4', 'net' => '-0.4'], 'cells' => 1], (array) $printed['patterns']);
    }

    public function test_a_plan_shapes_the_sides_and_what_its_steps_leave_out_is_written(): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $plan = $this->file((string) json_encode(['formatVersion' => 2, 'key' => [$same('basin'), $same('month')], 'columnPairs' => [['id' => 'pair-000000000000', ...$same('charge')]], 'sides' => [
            'source' => ['shape' => [
                ['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'since', 'test' => 'after', 'parameter' => 'cut-off'], 'reason' => 'not yet let'],
                ['id' => 'b', 'kind' => 'fold-columns', 'columns' => ['apr', 'may'], 'namesInto' => 'month', 'valuesInto' => 'charge'],
            ]],
            'target' => ['shape' => [['id' => 'c', 'kind' => 'leave-out-blank-rows']]],
        ]]), 'plan.json');
        $arguments = [$this->file("basin,since,apr,may\nKB,2020-01-01,1,2\nLM,2027-01-01,3,4\n", 'wide.csv'), $this->file("basin,month,charge\nKB,may,2\n,,\nKB,apr,1\n", 'long.csv'), "--plan={$plan}"];
        $out = $this->folder('out');

        self::assertStringContainsString('has no parameter "cut-off"', $this->command($arguments)->getErrorOutput());
        $process = $this->command([...$arguments, "--out={$out}", '--parameter=cut-off=2026-01-01', '--workers=2', '--json']);
        self::assertSame(1, $process->getExitCode(), $process->getErrorOutput());
        self::assertSame("side,line,step,what the step does,reason,who answers for it,basin,since,month,charge,apr,may\nsource,3,1,Leave out rows where since is after “cut-off” of the tally,not yet let,,LM,2027-01-01,,,3,4\ntarget,3,1,Leave out rows with nothing in any column,,,,,,,,\n", file_get_contents("{$out}/left-out.csv"));
        self::assertStringContainsString('"delivered":2,"left_out":1,"made":1,"merged":0,"shaped":2,"unkeyed":0,"repeated":0,"agreed":2', $process->getOutput());
    }

    public function test_more_workers_less_memory_and_packed_input_give_the_same_bytes(): void
    {
        $rows = array_map(static fn(int $row): string => "KB,{$row},Holder {$row},".($row % 7).".50\n", range(1, 3_000));
        $new = array_map(static fn(int $row): string => "KB,{$row},HOLDER {$row},".($row % 7).".5\n", range(2_900, 1));
        $old = $this->file("basin,berth,holder,fee\n".implode('', $rows), 'old.csv');
        $packed = $this->file((string) gzencode("basin,berth,holder,fee\n".implode('', $new)), 'new.csv.gz');
        $written = [];
        foreach ([['--workers=1'], ['--workers=2', '--quiet'], ['--workers=4', '--memory=16M']] as $number => $options) {
            $out = $this->folder("out{$number}");
            self::assertSame(1, $this->command([$old, $packed, '--key=basin,berth', "--out={$out}", ...$options])->getExitCode());
            $written[] = array_map(static fn(string|false $path): string => (string) file_get_contents((string) $path), (array) glob("{$out}/*"));
        }

        self::assertSame($written[0], $written[1]);
        self::assertSame($written[0], $written[2]);
        self::assertStringContainsString('KB,1,holder,changed,case,Holder 1,HOLDER 1', implode('', $written[0]));
    }

    public function test_one_side_may_come_by_standard_input_and_be_json(): void
    {
        $process = $this->command([$this->file("berth,fee,paid\n14,1e400,true\n15,7,\n", 'old.csv'), '-', '--key=berth', '--json'], "{\"berth\":14,\"fee\":1e400,\"paid\":true}\n{\"fee\":7.0,\"berth\":\"15\",\"paid\":null,\"tags\":[1.10,{}]}\nno object\n");

        self::assertSame(1, $process->getExitCode(), $process->getErrorOutput());
        $printed = json_decode($process->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);
        self::assertSame(['compared' => 4, 'identical' => 3, 'forgiven' => 0, 'changed' => 1, 'blanked' => 0, 'filled' => 0], $printed['cells']);
        self::assertStringContainsString('"refused":1', $process->getOutput());
    }

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
        self::assertStringContainsString('Source 2 delivered = 2 agreed + 0 changed + 0 missing + 0 repeated + 0 unkeyed; 0 refused', $process->getOutput());
    }

    public function test_a_refused_record_is_a_difference(): void
    {
        $process = $this->command([$this->file("basin,berth\nKB,1\nKB\n", 'old.csv'), $this->file("basin,berth\nKB,1\n", 'new.csv'), '--key=basin,berth']);

        self::assertSame(1, $process->getExitCode());
    }

    /** @param list<string> $arguments */
    #[DataProvider('notUsable')]
    public function test_exit_status_2_comes_with_one_clear_message_and_leaves_nothing_behind(string $old, string $new, array $arguments, string $says): void
    {
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
        yield 'a key column that is not there' => [$good, $good, ['--key=bassin'], 'has no column "bassin". Its columns are: basin, berth, fee.'];
        yield 'a key column that only one side has' => [$good, "quay,fee\n1,2\n", ['--key=basin'], 'new.csv" has no column "basin"'];
        yield 'an unknown mapped column' => [$good, $good, ['--key=basin', '--map=fee:charge'], 'new.csv" has no column "charge"'];
        yield 'a map that is no pair' => [$good, $good, ['--key=basin', '--map=fee'], '--map=fee is not a pair'];
        yield 'duplicate header names that the plan touches' => ["basin,fee,fee\nKB,1,2\n", $good, ['--key=basin'], 'names column "fee" 2 times (columns 2, 3)'];
        yield 'a quote left open' => ["basin,berth,fee\nKB,\"1,2\n", $good, ['--key=basin'], 'the quote opened on line 2 is never closed'];
        yield 'another kind of file' => ["PK\x03\x04", $good, ['--key=basin'], 'breaks off in the middle or is damaged'];
        yield 'a packed file that breaks off' => [substr((string) gzencode(str_repeat($good, 3_000)), 0, -40), $good, ['--key=basin'], 'old.csv" breaks off'];
        yield 'a JSON document that breaks off' => ['[{"basin":1},{"basin":', $good, ['--key=basin'], 'old.csv" breaks off'];
        yield 'JSON that is no register' => ['[1, 2]', $good, ['--key=basin'], 'no object in it has a property'];
        yield 'a plan and a key' => [$good, $good, ['--key=basin', '--plan=x'], 'Give either --plan, or --key'];
        yield 'a plan that is not there' => [$good, $good, ['--plan=/nowhere/plan.json'], 'cannot be opened'];
        yield 'no number of workers' => [$good, $good, ['--key=basin', '--workers=many'], '--workers=many is not a number of processes'];
        yield 'no size' => [$good, $good, ['--key=basin', '--memory=lots'], '--memory=lots is no size'];
        yield 'no delimiter' => [$good, $good, ['--key=basin', '--delimiter=dot'], '--delimiter is one of comma'];
        yield 'a worker that cannot read on' => ["basin,berth,fee\nKB,\"1,2\n", $good, ['--key=basin', '--workers=2'], 'the quote opened on line 2 is never closed'];
        yield 'an unknown option' => [$good, $good, ['--keys=basin'], 'The "--keys" option does not exist'];
    }

    public function test_header_only_is_a_warning(): void
    {
        $process = $this->command([$this->file("basin,berth\n", 'old.csv'), $this->file("basin,berth\nKB,1\n", 'new.csv'), '--key=basin,berth']);

        self::assertSame(1, $process->getExitCode());
        self::assertStringContainsString('Warning: The source delivers no rows', $process->getErrorOutput());
    }

    public function test_a_folder_and_a_file_that_is_not_there_are_named(): void
    {
        $file = $this->file("basin\nKB\n");

        self::assertStringContainsString('is a folder', $this->command([$this->folder(), $file, '--key=basin'])->getErrorOutput());
        self::assertStringContainsString('cannot be opened', $this->command([$file, '/nowhere/new.csv', '--key=basin'])->getErrorOutput());
    }

    /** @param list<string> $arguments */
    private function command(array $arguments, string $input = ''): Process
    {
        $process = new Process([PHP_BINARY, dirname(__DIR__, 2).'/bin/nine-tally', 'tally', ...$arguments], input: $input);
        $process->run();

        return $process;
    }
}
