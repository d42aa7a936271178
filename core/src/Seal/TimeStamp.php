<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

use NineTally\Core\Tally\Workspace;
use Symfony\Component\Process\Process;

/**
 * What a service says of the time at which a seal was there (RFC 3161). Asked for and read by openssl, which whoever checks a pack without
 * us uses too.
 */
final readonly class TimeStamp
{
    /** @param string $token the answer of the service (TimeStampResp), as it came */
    public function __construct(public string $token) {}

    /**
     * @return string the question (TimeStampReq), to be sent as application/timestamp-query
     *
     * @throws UnusableTimeStamp where there is no openssl
     */
    public static function question(string $statement): string
    {
        $workspace = Workspace::make();
        try {
            file_put_contents("{$workspace->path}/seal.json", $statement);
            $process = self::openssl($workspace, ['-query', '-data', 'seal.json', '-sha256', '-cert', '-out', 'question.tsq']);

            return $process->isSuccessful()
                ? (string) file_get_contents("{$workspace->path}/question.tsq")
                : throw UnusableTimeStamp::withoutTool();
        } finally {
            $workspace->remove();
        }
    }

    /**
     * @param  string  $authority  certificates in PEM that are trusted
     * @return \DateTimeImmutable the moment that it vouches for
     *
     * @throws UnusableTimeStamp when it is none of this seal, or by another service
     */
    public function of(string $statement, string $authority): \DateTimeImmutable
    {
        $workspace = Workspace::make();
        try {
            foreach (['seal.json' => $statement, 'answer.tsr' => $this->token, 'authority.pem' => $authority] as $name => $content) {
                file_put_contents("{$workspace->path}/{$name}", $content);
            }
            $said = self::openssl($workspace, ['-reply', '-in', 'answer.tsr', '-text']);
            if ($said->getExitCode() === 127) {
                throw UnusableTimeStamp::withoutTool();
            }
            $held = self::openssl($workspace, ['-verify', '-data', 'seal.json', '-in', 'answer.tsr', '-CAfile', 'authority.pem']);
            $found = preg_match('/^Status: Granted\.$.*^Time stamp: (.+)$/ms', $said->getOutput(), $time) === 1;
            $at = $found ? date_create_immutable(explode("\n", $time[1])[0]) : false;

            return $held->isSuccessful() && $at !== false
                ? $at
                : throw UnusableTimeStamp::because('it is not over this seal, or not by the service whose certificate stands beside it');
        } finally {
            $workspace->remove();
        }
    }

    /** @param list<string> $arguments */
    private static function openssl(Workspace $workspace, array $arguments): Process
    {
        $process = new Process(['openssl', 'ts', ...$arguments], $workspace->path, ['LC_ALL' => 'C', 'TZ' => 'UTC'], timeout: 60);
        $process->run();

        return $process;
    }
}
