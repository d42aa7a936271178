<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Problems\NoRoom;
use GuzzleHttp\Client;
use GuzzleHttp\Exception\ConnectException;
use GuzzleHttp\Exception\GuzzleException;
use GuzzleHttp\Psr7\Uri;
use GuzzleHttp\Psr7\UriResolver;
use Psr\Http\Message\ResponseInterface;

/** One page of a feed in a file: asked again where the server is busy, as it says when; within its size, and never of the inner network. */
final readonly class FeedRequest
{
    private const TRIES = 4;

    private const MOST_REDIRECTS = 3;

    /** Seconds that a server may ask to wait for. */
    private const MOST_WAIT = 60;

    /** Answers after which it is worth asking again (RFC 9110, RFC 6585). */
    private const BUSY = [429, 500, 502, 503, 504];

    public function __construct(
        private OuterGate $gate,
        private FeedAddress $address,
        private int $mostBytes,
        private ?FeedMemory $memory = null,
    ) {}

    /**
     * @param  \Closure(int): bool  $goesOn  told the bytes so far; false ends it
     * @return FeedAnswer|null null when it was ended
     *
     * @throws SourceProblem when there is no page
     */
    public function into(string $url, string $path, \Closure $goesOn): ?FeedAnswer
    {
        $try = $redirects = 0;
        $asked = $url;
        $known = $this->memory?->of($asked);
        while (true) {
            $problem = '';
            $answer = $this->asked($url, $path, $goesOn, $problem, $known->mark ?? '');
            if ($answer === null && $problem === '') {
                return null;
            }
            $status = $answer?->getStatusCode() ?? 0;
            if ($known !== null && $status === 304) {
                if ($this->memory?->copy($known, $path) === true) {
                    clearstatcache(true, $path);

                    return new FeedAnswer((int) filesize($path), $known->type, $known->link, $known->mark);
                }
                // It went meanwhile, so it is asked for as a whole.
                $known = null;

                continue;
            }
            if ($answer !== null && $status >= 200 && $status < 300) {
                clearstatcache(true, $path);
                $found = new FeedAnswer(
                    (int) filesize($path),
                    strtolower($answer->getHeaderLine('Content-Type')),
                    $answer->getHeaderLine('Link'),
                    $answer->getHeaderLine('ETag'),
                );
                $this->memory?->remember($asked, $found, $path);

                return $found;
            }
            if ($answer !== null && in_array($status, [301, 302, 303, 307, 308], true)) {
                if (++$redirects > self::MOST_REDIRECTS) {
                    throw new SourceProblem('It sends from one address to another and on. Use the last one');
                }
                $url = (string) UriResolver::resolve(new Uri($url), new Uri($answer->getHeaderLine('Location')));

                continue;
            }
            $isBusy = $answer === null || in_array($status, self::BUSY, true);
            if (! $isBusy || ++$try === self::TRIES) {
                throw new SourceProblem($problem === '' ? $this->refusal($status, $url) : $problem);
            }
            if (! $this->waited($this->pause($answer, $try), $goesOn)) {
                return null;
            }
        }
    }

    /** @param \Closure(int): bool $goesOn */
    private function asked(string $url, string $path, \Closure $goesOn, string &$problem, string $mark): ?ResponseInterface
    {
        $to = $this->gate->to($url);
        $isOurs = strtolower((string) parse_url($this->address->url, PHP_URL_HOST)) === strtolower($to['host']);
        $file = @fopen($path, 'wb') ?: throw NoRoom::writing();
        $isEnded = $isOver = false;
        try {
            return (new Client)->request('GET', $url, [
                'allow_redirects' => false,
                'http_errors' => false,
                'connect_timeout' => 10,
                'read_timeout' => 60,
                'timeout' => $this->address->seconds,
                'decode_content' => true,
                'sink' => $file,
                'headers' => [
                    'Accept' => 'application/json, application/x-ndjson, text/csv, application/xml;q=0.9, */*;q=0.5',
                    'User-Agent' => 'Nine Tally',
                    ...$mark === '' ? [] : ['If-None-Match' => $mark],
                    // What lets one in is shown to the computer it was given for, and to no other.
                    ...$this->address->token !== '' && $isOurs
                        ? [$this->address->header => $this->address->shown()]
                        : [],
                ],
                'curl' => $to['curl'],
                'progress' => function () use ($file, $goesOn, &$isEnded, &$isOver): int {
                    // What is packed counts by what comes out of it.
                    $bytes = is_resource($file) ? (int) (fstat($file)['size'] ?? 0) : 0;
                    $isOver = $bytes > $this->mostBytes;
                    $isEnded = ! $isOver && ! $goesOn($bytes);

                    return $isOver || $isEnded ? 1 : 0;
                },
            ]);
        } catch (GuzzleException $gone) {
            $problem = match (true) {
                $isEnded => '',
                $isOver => throw new SourceProblem(sprintf('It is more than %s bytes', number_format($this->mostBytes))),
                preg_match('/certificate|SSL/i', $gone->getMessage()) === 1 => throw new SourceProblem(
                    "The certificate of {$to['host']} cannot be trusted. Check the address, and whose certificate it is",
                ),
                $gone instanceof ConnectException => "Nobody answers at {$to['host']}, port {$to['port']}. Check the address",
                default => "{$to['host']} ended the connection in the middle of a page",
            };

            return null;
        } finally {
            is_resource($file) && fclose($file);
        }
    }

    private function refusal(int $status, string $url): string
    {
        $path = (string) parse_url($url, PHP_URL_PATH);

        return match (true) {
            $status === 401 => 'It does not know this token. Check it, and the header that it is shown in',
            $status === 403 => 'This token may not read it',
            $status === 404, $status === 410 => "There is nothing at {$path}. Check the address",
            $status === 429 => 'It lets nobody ask so often. Try later',
            $status >= 500 => "It could not answer (HTTP {$status}), also when asked again",
            default => "It refuses the request (HTTP {$status})",
        };
    }

    /** @return float seconds, as the server asks (Retry-After, RFC 9110), else twice as long each time */
    private function pause(?ResponseInterface $answer, int $try): float
    {
        $said = $answer?->getHeaderLine('Retry-After') ?? '';
        $seconds = match (true) {
            $said === '' => 0.25 * 2 ** $try,
            is_numeric($said) => (float) $said,
            default => (float) max(0, ((int) strtotime($said)) - time()),
        };
        if ($seconds > self::MOST_WAIT) {
            throw new SourceProblem(sprintf('It asks to come again in %s seconds', number_format($seconds)));
        }

        return $seconds;
    }

    /** @param \Closure(int): bool $goesOn */
    private function waited(float $seconds, \Closure $goesOn): bool
    {
        $until = microtime(true) + $seconds;
        while (microtime(true) < $until) {
            if (! $goesOn(0)) {
                return false;
            }
            usleep(100_000);
        }

        return true;
    }
}
