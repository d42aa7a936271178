<?php

declare(strict_types=1);

namespace Tests\Browser;

use Symfony\Component\Process\Process;
use Tests\TestCase;

/** What a pipeline runs, from outside by a token: the server, its workers and the program are the real ones. */
final class PipelineTest extends TestCase
{
    public function test_files_are_delivered_and_tallied_and_the_status_says_whether_the_limits_hold(): void
    {
        $this->tallied();
        $token = $this->analyst->createToken('nightly', ['view', 'work'], now()->addDay())->plainTextToken;
        $file = storage_path('work/pipeline.csv');
        file_put_contents($file, self::OLD);

        $held = $this->pipeline($token, "--source={$file}", '--json', '--name=Rehearsal 4');
        self::assertSame(0, $held->getExitCode(), $held->getErrorOutput());
        $figures = json_decode($held->getOutput(), true);
        self::assertIsArray($figures);
        self::assertSame([2, []], [$figures['tally'], $figures['limits']]);
        self::assertGreaterThan(0, $figures['open']);
        self::assertSame('Rehearsal 4', $this->dataset->latestTally()?->name?->name);

        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['limits' => [['figure' => 'rows-missing', 'worst' => '0']]] + $draft->document]);
        $failed = $this->pipeline($token);
        self::assertSame(1, $failed->getExitCode(), $failed->getErrorOutput());
        self::assertMatchesRegularExpression(
            '/^Tally 3: \d+ findings, \d+ open\nfails +Rows missing: at most 0 \(1\)\n$/D',
            $failed->getOutput(),
        );

        file_put_contents($file, '');
        foreach ([
            [$this->pipeline($token, "--source={$file}"), 'is empty'],
            [$this->pipeline($token, '--source=/none.csv'), '/none.csv cannot be read'],
            [$this->pipeline('wrong', "--source={$file}"), 'Sign in'],
            [$this->pipeline($token, '--draw'), 'Neither side was drawn'],
        ] as [$refused, $why]) {
            self::assertSame(2, $refused->getExitCode());
            self::assertStringContainsString($why, $refused->getErrorOutput());
        }
    }

    private function pipeline(string $token, string ...$arguments): Process
    {
        $process = new Process(
            [
                PHP_BINARY,
                base_path('bin/pipeline'),
                '--server=http://127.0.0.1:8190',
                "--dataset={$this->dataset->id}",
                '--seconds=60',
                ...$arguments,
            ],
            env: ['NINE_TALLY_TOKEN' => $token],
        );
        $process->setTimeout(90)->run();

        return $process;
    }
}
