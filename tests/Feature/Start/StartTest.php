<?php

declare(strict_types=1);

namespace Tests\Feature\Start;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** What bin/start and bin/test refuse, they refuse before anything is touched. */
final class StartTest extends TestCase
{
    /** @param non-empty-list<string> $command */
    #[DataProvider('refused')]
    public function test_says_what_it_refuses_and_what_to_do(array $command, string $says): void
    {
        $process = new Process($command, dirname(__DIR__, 3));
        $process->run();

        self::assertSame(1, $process->getExitCode());
        self::assertStringContainsString($says, $process->getErrorOutput());
    }

    /** @return iterable<string, array{non-empty-list<string>, string}> */
    public static function refused(): iterable
    {
        yield 'an address that others can reach' => [['bin/start', '--address', '0.0.0.0'], 'Nine Tally serves on loopback only'];
        yield 'an option that it does not know' => [['bin/start', '--prot', '80'], 'I do not know "--prot". Use: bin/start'];
        yield 'a port that is no number' => [['bin/start', '--port', 'eighty'], 'Ports and workers are numbers'];
        yield 'no workers' => [['bin/start', '--workers', '0'], 'Ports and workers are numbers'];
        yield 'a part that there is not' => [['bin/test', 'everything'], 'I do not know the part "everything". Parts: core'];
    }

    public function test_a_port_in_use_is_named_with_the_way_out(): void
    {
        $server = stream_socket_server('tcp://127.0.0.1:0') ?: self::fail('No port is free.');
        $port = substr((string) strrchr((string) stream_socket_get_name($server, false), ':'), 1);
        // A clone of its own: an installation may be running in this one.
        $clone = sys_get_temp_dir().'/nine-tally-start-'.bin2hex(random_bytes(4));
        (new Process(['cp', '-r', dirname(__DIR__, 3).'/bin', $clone]))->mustRun();
        mkdir("{$clone}/bin");
        (new Process(['sh', '-c', 'mv "$1"/start "$1"/stop "$1"/lib "$1"/bin/', 'sh', $clone]))->mustRun();
        $process = new Process(["{$clone}/bin/start", '--port', $port]);
        $process->run();
        (new Process(['rm', '-rf', $clone]))->run();

        self::assertSame(1, $process->getExitCode());
        self::assertStringContainsString(
            "Port {$port} is in use. End what uses it, or choose another with --port.",
            $process->getErrorOutput(),
        );
    }
}
