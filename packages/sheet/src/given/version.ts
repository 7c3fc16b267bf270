import { IsInt, Max, Min } from 'class-validator';

/** No line is changed more often than a version can count. */
const MOST = 2_147_483_647;

/** The version that was read: another one since then refuses the change. */
export function Version(): PropertyDecorator {
  return (target, property) => {
    IsInt({ message: 'must be a whole number: the version that was read' })(target, property);
    Min(1, { message: 'must not be under 1' })(target, property);
    Max(MOST, { message: `must be at most ${MOST}` })(target, property);
  };
}
