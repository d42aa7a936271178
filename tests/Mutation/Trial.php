<?php

declare(strict_types=1);

namespace Tests\Mutation;

use Symfony\Component\Process\Process;

/** Runs the tests of core against one mutant, which is loaded instead of its class; the source itself is never touched. */
final readonly class Trial
{
    private function __construct(public Mutant $mutant, private Process $process, private string $folder, private float $limit) {}

    /** @param list<string> $tests paths of the tests that run */
    public static function start(string $root, string $class, Mutant $mutant, array $tests, float $seconds): self
    {
        $folder = "{$root}/var/mutate/".bin2hex(random_bytes(6));
        mkdir($folder, 0700, true);
        file_put_contents("{$folder}/mutant.php", $mutant->code);
        file_put_contents(
            "{$folder}/bootstrap.php",
            sprintf(
                "<?php require '%s/vendor/autoload.php'; spl_autoload_register(static function (string \$class): void ".
                    "{ if (\$class === '%s') { require '%s/mutant.php'; } }, prepend: true);",
                $root,
                $class,
                $folder,
            ),
        );
        $process = new Process(
            [
                PHP_BINARY,
                'vendor/bin/phpunit',
                '-c',
                'core/phpunit.xml',
                '--bootstrap',
                "{$folder}/bootstrap.php",
                '--cache-directory',
                "{$folder}/cache",
                '--stop-on-defect',
                '--exclude-group',
                'long',
                '--no-output',
                ...$tests,
            ],
            $root,
            timeout: null,
        );
        $process->start();

        return new self($mutant, $process, $folder, microtime(true) + $seconds);
    }

    /** @return string|null what became of the mutant; null while its tests run */
    public function outcome(): ?string
    {
        $isLate = microtime(true) > $this->limit;
        if ($this->process->isRunning() && ! $isLate) {
            return null;
        }
        $this->process->stop(0);
        array_map(unlink(...), glob("{$this->folder}/*.php") ?: []);
        array_map(unlink(...), glob("{$this->folder}/cache/*") ?: []);
        @rmdir("{$this->folder}/cache");
        @rmdir($this->folder);

        return $isLate ? 'too slow' : ($this->process->getExitCode() === 0 ? 'survived' : 'killed');
    }
}
